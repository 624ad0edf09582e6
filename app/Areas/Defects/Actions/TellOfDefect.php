<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Notices\Actions\NotifyPeople;
use LucidStep\App\Areas\Notices\Data\NoticeKind;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\Core\Defects\DefectNews;
use LucidStep\Core\Defects\DefectState;

/**
 * Tells whoever a defect waits for, and whoever wrote or has it, what became of it; never of their own act.
 */
final readonly class TellOfDefect
{
    public function __construct(private NotifyPeople $notify) {}

    public function given(Defect $defect, User $by, string $to): void
    {
        $this->tell(NoticeKind::Defect, $defect, $by, [$to], "{$by->name} gave you {$defect->key}: {$defect->title}");
    }

    public function moved(Defect $defect, User $by, DefectState $from, string $note): void
    {
        $news = DefectNews::of($from, $defect->state);
        $people = [
            ...self::watchers($defect),
            ...$news?->toReporter ? [$defect->reporter_id] : [],
            ...$news?->toAssignee ? array_filter([$defect->assignee_id]) : [],
        ];
        $said = '' === $note ? '' : ": {$note}";
        $words =
            null === $news ? "moved {$defect->key} to " . str_replace('_', ' ', $defect->state->value) : "{$news->words} {$defect->key}";
        $this->tell(NoticeKind::Defect, $defect, $by, $people, "{$by->name} {$words}{$said}");
    }

    /**
     * It changed in the tracker outside.
     */
    public function followed(Defect $defect, string $note): void
    {
        $people = array_values(array_unique(array_filter([$defect->reporter_id, $defect->assignee_id, ...self::watchers($defect)])));
        $this->notify->inProject(
            NoticeKind::Defect,
            Project::query()->findOrFail($defect->project_id),
            $people,
            "{$defect->key}: {$note}",
            "/defects/{$defect->key}",
        );
    }

    /**
     * @param  list<string>  $named people who are named in it
     */
    public function said(Defect $defect, User $by, string $text, array $named): void
    {
        $this->named($defect, $by, $text, $named);
        $others = array_diff(array_filter([$defect->reporter_id, $defect->assignee_id, ...self::watchers($defect)]), $named);
        $this->tell(NoticeKind::Defect, $defect, $by, $others, "{$by->name} wrote at {$defect->key}: " . self::short($text));
    }

    /**
     * @param  list<string>  $people
     */
    public function named(Defect $defect, User $by, string $text, array $people): void
    {
        $this->tell(NoticeKind::Mentioned, $defect, $by, $people, "{$by->name} names you at {$defect->key}: " . self::short($text));
    }

    /**
     * @return list<string>
     */
    private static function watchers(Defect $defect): array
    {
        return array_values(DB::table('defect_watchers')->where('defect_id', $defect->id)->pluck('user_id')->map(strval(...))->all());
    }

    private static function short(string $text): string
    {
        return mb_strimwidth(trim((string) preg_replace('/\s+/u', ' ', $text)), 0, 160, '…');
    }

    /**
     * @param  array<array-key, string>  $people
     */
    private function tell(NoticeKind $kind, Defect $defect, User $by, array $people, string $text): void
    {
        $people = array_values(array_unique(array_diff($people, [$by->id])));
        if ([] !== $people) {
            $this->notify->inProject($kind, Project::query()->findOrFail($defect->project_id), $people, $text, "/defects/{$defect->key}");
        }
    }
}
