<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Queries;

use LucidStep\App\Areas\Sessions\Data\ReproDetail;
use LucidStep\App\Areas\Sessions\Data\SessionSheet;
use LucidStep\App\Areas\Sessions\Data\TimelineLine;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Models\User;
use LucidStep\Core\Sessions\LineKind;
use LucidStep\Core\Sessions\SessionLine as CoreLine;
use LucidStep\Core\Sessions\SheetText;

/**
 * Reads a session as one sheet.
 */
final readonly class ReadSheet
{
    public function __construct(private ReadSession $session, private ReadTimeline $timeline) {}

    public function __invoke(TestSession $session, User $reader): SessionSheet
    {
        $detail = ($this->session)($session, $reader);
        $kinds = array_values(
            array_filter(LineKind::cases(), static fn(LineKind $k): bool => !$k->isObserved() || LineKind::Trouble === $k),
        );
        $lines = [];
        $after = '';
        do {
            $page = ($this->timeline)($session->id, '', $kinds, $after);
            array_push($lines, ...$page->items);
            $after = $page->next ?? '';
        } while ('' !== $after);
        $counts = (array) $detail->counts;
        $observed = array_sum(
            array_map(static fn(LineKind $k): int => $k->isObserved() ? (int) ($counts[$k->value] ?? 0) : 0, LineKind::cases()),
        );
        $links = [];
        foreach ($detail->repros as $repro) {
            $links[$repro->line_id] = self::links($repro);
        }
        $charter = $detail->charter;
        $mission = array_filter([
            '' === $charter->with_what ? '' : "with {$charter->with_what}",
            '' === $charter->to_find ? '' : "to find {$charter->to_find}",
        ]);
        $text = new SheetText(
            $charter->key,
            $charter->title,
            implode(', ', $mission),
            [
                'Tester' => $detail->tester->name,
                'Session' => (string) $detail->number,
                'Begun' => $detail->started_at,
                'Build' => $detail->build->name ?? '',
                'Configuration' => $detail->configuration->name ?? '',
                'Environment' => $detail->environment,
                'Area' => $charter->area,
                'Risk' => $charter->risk,
                'Active' => SheetText::clock($detail->active_ms) . ' of ' . SheetText::clock($detail->box_ms),
                'Signed off' =>
                    null === $detail->signed_by ? '' : trim("{$detail->signed_by->name}, {$detail->signed_at}. {$detail->sign_note}"),
            ],
            $session->shares($detail->as_of),
            array_map(
                static fn(TimelineLine $l): CoreLine => new CoreLine($l->id, LineKind::from($l->kind), $l->at_ms, $l->words, $l->pinned),
                $lines,
            ),
            $links,
            array_filter(array_column($lines, 'name', 'id')),
            $observed,
            $detail->covered,
            $detail->remarks,
        );

        return new SessionSheet($detail, $lines, $observed, $text->markdown());
    }

    /**
     * @return list<string>
     */
    private static function links(ReproDetail $repro): array
    {
        return array_values(array_filter([$repro->defect->key ?? '', $repro->case_key ?? '']));
    }
}
