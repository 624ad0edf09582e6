<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Queries;

use LucidStep\App\Areas\Evidence\Data\EvidenceItem;
use LucidStep\App\Areas\Walk\Data\AttemptDetail;
use LucidStep\App\Models\Attempt;

/**
 * Writes an attempt down for people to read, as Markdown: on what, by whom, and each round step by step. Secret values are
 * hidden.
 */
final readonly class WriteProtocol
{
    public function __construct(private ReadAttempt $read) {}

    public function __invoke(Attempt $attempt): string
    {
        $d = ($this->read)(Attempt::query()->findOrFail($attempt->id));
        $a = $d->attempt;
        $word = static fn(?string $v): string => str_replace('_', ' ', $v ?? 'not run');
        $lines = [
            "# {$d->case_key} {$d->title}",
            '',
            "- Attempt {$a->number} in {$d->cycle_name} ({$d->cycle_key}), version {$d->case_version} of the case",
            "- By {$a->tester->name}, {$a->started_at} to " . ($a->finished_at ?? 'now') . ' (UTC)',
            '- On ' .
            implode(', ', array_filter([$a->configuration?->name, null === $a->build ? '' : "build {$a->build->name}", $a->environment])),
            '- Verdict: ' .
            $word($a->verdict ?? $a->roll_up) .
            ($a->overruled ? ' (overruled; the steps say ' . $word($a->roll_up) . ')' : '') .
            ('finished' === $a->state ? '' : ", {$a->state}"),
            \sprintf(
                '- Time: %d s%s',
                intdiv($a->corrected_ms ?? $a->active_ms, 1000),
                null === $a->corrected_ms ? '' : \sprintf(', corrected from %d s', intdiv($a->active_ms, 1000)),
            ),
        ];
        foreach (
            [
                'Note' => $a->note,
                'Note on the attempt' => $a->remark,
                'Judged from the list' => $a->from_list ? 'nobody walked its steps' : '',
                'Stands beside' => (string) $a->parallel_reason,
                'Before it began' => $d->preconditions,
            ]
            as $label => $text
        ) {
            if ('' !== $text) {
                $lines[] = "- {$label}: {$text}";
            }
        }
        foreach ($d->rounds as $round) {
            $texts = array_column(array_map(static fn($t): array => [$t->position, $t], $d->steps), 1, 0);
            foreach ($round->texts as $text) {
                $texts[$text->position] = $text;
            }
            array_push(
                $lines,
                '',
                "## Round {$round->position}: " .
                    (null === $round->skipped ? $word($round->roll_up) : "left out ({$round->skipped})") .
                    (null === $round->repeats ? '' : ", once more what round {$round->repeats} walked"),
            );
            foreach ($round->values as $value) {
                $lines[] = "- {$value->name}: {$value->value}";
            }
            foreach ($round->steps as $step) {
                $text = $texts[$step->position] ?? null;
                array_push($lines, '', "{$step->position}. **{$word($step->verdict)}** " . ($text->action ?? ''));
                foreach (
                    [
                        'Data' => $text->data ?? '',
                        'Expected' => $text->expected ?? '',
                        'Happened' => $step->happened,
                        'Reason' => $step->reason,
                        'Waits on' => $step->waits_on,
                        'Note' => $step->note,
                        'Tries' => 0 === $step->tries ? '' : "failed {$step->tries_failed} of {$step->tries}",
                    ]
                    as $label => $said
                ) {
                    if ('' !== $said) {
                        $lines[] = "   - {$label}: " . str_replace("\n", "\n     ", $said);
                    }
                }
                foreach ($this->files($d, $round->position, $step->position) as $file) {
                    $lines[] = "   - {$file}";
                }
            }
        }
        $rest = $this->files($d, null, null);
        if ([] !== $rest) {
            array_push($lines, '', '## Evidence of the attempt', '', ...array_map(static fn(string $f): string => "- {$f}", $rest));
        }
        foreach ($d->defects as $defect) {
            $lines[] = "- Defect {$defect->key}: {$defect->title}";
        }

        return implode("\n", $lines) . "\n";
    }

    /**
     * @return list<string>
     */
    private function files(AttemptDetail $d, ?int $round, ?int $step): array
    {
        $of = array_filter(
            $d->evidence,
            static fn(EvidenceItem $e): bool => $e->step === $step && (null === $step || $e->round === $round),
        );

        return array_values(
            array_map(
                static fn(EvidenceItem $e): string => 'Evidence: ' .
                    ('' === $e->caption ? $e->name : "{$e->caption} ({$e->name})") .
                    (null === $e->link ? '' : ", {$e->link}") .
                    (null === $e->sha256 ? '' : ", SHA-256 {$e->sha256}") .
                    ($e->gone ? ', taken out' : ''),
                $of,
            ),
        );
    }
}
