<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Notices\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Mail;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Mail\PlainMail;
use LucidStep\App\Areas\Notices\Data\NoticeKind;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Record\RecordSigner;
use LucidStep\Core\Planning\CycleState;

/**
 * Tells people of a cycle what concerns them: in the application, and by mail what they would not want to miss.
 */
final readonly class NotifyPeople
{
    public function __construct(private PublishChange $announce, private RecordSigner $signer) {}

    public function assigned(Cycle $cycle, User $by, string $to, int $count, string $note): void
    {
        if ($count > 0 && $to !== $by->id && CycleState::Released === $cycle->state) {
            $this->notice(
                NoticeKind::Assigned,
                $cycle,
                [$to],
                \sprintf('%s assigned %d %s of %s to you', $by->name, $count, 1 === $count ? 'entry' : 'entries', $cycle->name) .
                    ('' === $note ? '.' : ": {$note}"),
            );
        }
    }

    public function retest(Entry $entry, User $by, string $reason): void
    {
        $assignee = $entry->assignee_id;
        if (null !== $assignee && $assignee !== $by->id) {
            $entry->loadMissing('case', 'cycle');
            $this->notice(
                NoticeKind::Retest,
                $entry->cycle,
                [$assignee],
                "{$by->name} asks for a retest of {$entry->case->key}: {$reason}",
                "/entries/{$entry->id}",
            );
        }
    }

    public function takenOver(Attempt $attempt, User $by, string $from, string $word): void
    {
        $entry = Entry::query()->with('case', 'cycle')->findOrFail($attempt->entry_id);
        $this->notice(
            NoticeKind::TakenOver,
            $entry->cycle,
            [$from],
            "{$by->name} took {$entry->case->key} over from you" . ('' === $word ? '. What you recorded is kept.' : ": {$word}"),
            "/entries/{$entry->id}",
        );
    }

    public function released(Cycle $cycle, User $by): void
    {
        $people = DB::table('entries')
            ->where('cycle_id', $cycle->id)
            ->whereNotNull('assignee_id')
            ->distinct()
            ->pluck('assignee_id')
            ->merge(DB::table('cycle_people')->where('cycle_id', $cycle->id)->where('part', 'tester')->pluck('user_id'))
            ->unique()
            ->reject($by->id)
            ->all();
        $this->notice(
            NoticeKind::Released,
            $cycle,
            array_values($people),
            "{$cycle->name} is released: it can be walked from {$cycle->starts_on->format('j M')}.",
        );
    }

    public function returned(Cycle $cycle, User $by, string $reason): void
    {
        $author = DB::table('cycle_log')->where('cycle_id', $cycle->id)->whereNotNull('actor_id')->orderBy('id')->value('actor_id');
        $this->notice(
            NoticeKind::Returned,
            $cycle,
            array_values(array_filter([$author], static fn(mixed $id): bool => \is_string($id) && $id !== $by->id)),
            "{$by->name} returned {$cycle->name} to draft: {$reason}",
        );
    }

    /**
     * Leads are asked for a review.
     */
    public function review(Cycle $cycle, User $by): void
    {
        $leads = DB::table('memberships')
            ->where('project_id', $cycle->project_id)
            ->whereIn('role', ['lead', 'admin'])
            ->where('user_id', '<>', $by->id)
            ->pluck('user_id')
            ->all();
        $this->notice(NoticeKind::Review, $cycle, array_values($leads), "{$by->name} asks for a review of {$cycle->name}.");
    }

    /**
     * The watchers are told of the end, in the application and by mail.
     *
     * @param  array<string, int>  $counts the cycle's entries by what they show
     */
    public function ended(Cycle $cycle, ?User $by, string $reason, array $counts): void
    {
        $watchers = DB::table('cycle_people')->where('cycle_id', $cycle->id)->where('part', 'watcher')->pluck('user_id')->all();
        $figures = implode(
            ', ',
            array_map(static fn(string $shows, int $n): string => "{$n} " . str_replace('_', ' ', $shows), array_keys($counts), $counts),
        );
        $text =
            "{$cycle->name} was {$cycle->state->label()}" .
            (null === $by ? '' : " by {$by->name}") .
            ('' === $reason ? '' : ": {$reason}") .
            ('' === $figures ? '.' : ". {$figures}.");
        $head = (string) DB::table('cycles')->where('id', $cycle->id)->value('log_head');
        $record = '' === $head ? '' : "\n\nHead of its record: {$head}\nSigned with the key {$this->signer->fingerprint()}";
        $this->notice(NoticeKind::Ended, $cycle, array_values($watchers), $text, null, $text . $record);
    }

    /**
     * @param  list<string>  $people
     * @param  ?string  $page where it leads inside the project; the cycle by default
     * @param  string  $mail what a mail says instead of the text
     */
    private function notice(NoticeKind $kind, Cycle $cycle, array $people, string $text, ?string $page = null, string $mail = ''): void
    {
        if ([] !== $people) {
            $project = Project::query()->findOrFail($cycle->project_id);
            $this->inProject($kind, $project, $people, $text, $page ?? "/cycles/{$cycle->key}", $mail);
        }
    }

    /**
     * The one place from which people are told of something: in the application, by mail or not at all, as each of them chose.
     *
     * @param  list<string>  $people
     * @param  string  $page within the project
     * @param  string  $mail what a mail says instead of the text
     */
    public function inProject(NoticeKind $kind, Project $project, array $people, string $text, string $page = '', string $mail = ''): void
    {
        $link = "/{$project->code}{$page}";
        $rows = [];
        $members = Membership::query()->where('project_id', $project->id)->whereIn('user_id', $people)->with('user')->get();
        foreach ($members->pluck('user') as $person) {
            $choice = $kind->choiceOf($person->chosen());
            if ($choice->here) {
                $rows[] = [
                    'id' => (string) Str::uuid7(),
                    'user_id' => $person->id,
                    'project_id' => $project->id,
                    'kind' => $kind,
                    'text' => $text,
                    'link' => $link,
                    'created_at' => Carbon::now(),
                ];
            }
            if ($choice->mail) {
                $words = ('' === $mail ? $text : $mail) . "\n\n" . url($link);
                Mail::to($person->email)->queue(new PlainMail("{$project->name}: {$kind->about()}", $words));
            }
        }
        DB::table('notices')->insert($rows);
        ($this->announce)($project->id, 'notice', $project->id);
    }
}
