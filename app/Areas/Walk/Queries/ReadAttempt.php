<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Queries;

use LucidStep\App\Areas\Defects\Data\LinkedDefect;
use LucidStep\App\Areas\Evidence\Data\EvidenceItem;
use LucidStep\App\Areas\Setup\Data\PolicySet;
use LucidStep\App\Areas\Walk\Commands\CommandRegistry;
use LucidStep\App\Areas\Walk\Data\AttemptDetail;
use LucidStep\App\Areas\Walk\Data\AttemptSummary;
use LucidStep\App\Areas\Walk\Data\LateCommandLine;
use LucidStep\App\Areas\Walk\Data\RemovalLine;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\CaseVersion;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use LucidStep\Core\Verdict\AttemptState;
use LucidStep\Core\Verdict\Policies;

/**
 * Reads an attempt step by step: what the walk and the attempt's page show.
 */
final readonly class ReadAttempt
{
    public function __construct(private ReadRemovals $removals, private CommandRegistry $commands) {}

    /**
     * @param  ?string  $reader the person who reads it: secret values are told to whoever walks
     */
    public function __invoke(Attempt $attempt, ?string $reader = null): AttemptDetail
    {
        $attempt->load(
            'tester',
            'build',
            'configuration',
            'namedEnvironment',
            'entry.cycle.project',
            'entry.case',
            'rounds',
            'evidence.file',
            'evidence.marked',
            'defectLinks.defect',
            'lateCommands.actor',
            'lateCommands.judge',
        );
        $earlier =
            $attempt->number > 1
                ? Attempt::query()
                    ->where('entry_id', $attempt->entry_id)
                    ->where('number', '<', $attempt->number)
                    ->with('tester', 'build', 'configuration', 'namedEnvironment')
                    ->orderByDesc('number')
                    ->get()
                    ->all()
                : [];
        $entry = $attempt->entry;
        $snapshot = $attempt->snapshot;
        [$first, $rounds] = AttemptRounds::of(
            $attempt,
            $snapshot,
            $attempt->rounds->all(),
            $reader === $attempt->tester_id && AttemptState::Open === $attempt->state,
        );
        $removals = $this->removals->of($attempt->id);
        $gone = array_flip(array_map(static fn(RemovalLine $r): string => $r->subject, $removals));

        return new AttemptDetail(
            AttemptSummary::from($attempt),
            $entry->cycle->project->code,
            $entry->id,
            $entry->cycle_id,
            $entry->cycle->key,
            $entry->cycle->name,
            (string) $snapshot['key'],
            (int) $snapshot['version'],
            (string) $snapshot['title'],
            (string) $snapshot['objective'],
            (string) $snapshot['preconditions'],
            (string) $snapshot['postconditions'],
            $entry->case->estimate_seconds,
            $first,
            $rounds,
            array_values(
                $attempt->evidence
                    ->whereNull('removed_at')
                    ->map(static fn(Evidence $e): EvidenceItem => EvidenceItem::from($e, isset($gone[$e->sha256 ?? ''])))
                    ->all(),
            ),
            array_values($attempt->defectLinks->map(LinkedDefect::from(...))->all()),
            array_values(array_map(AttemptSummary::from(...), $earlier)),
            array_values($attempt->lateCommands->map($this->late(...))->all()),
            null !== $entry->retest_asked_at && $entry->retest_asked_at < $attempt->started_at ? $entry->retest_reason : null,
            PolicySet::from(Policies::fromArray($entry->cycle->project->policies)),
            $removals,
            true === ($snapshot['secret'] ?? false),
        );
    }

    /**
     * An entry as its next attempt would begin, for a device that may have to begin it alone.
     *
     * @param  Entry  $entry   with case, configuration, cycle.build, cycle.environment and cycle.project loaded
     * @param  Attempt  $attempt as {@see AttemptRounds::planned()} makes it
     */
    public function planned(Entry $entry, CaseVersion $version, Attempt $attempt): AttemptDetail
    {
        [$first, $rounds] = AttemptRounds::of($attempt, $attempt->snapshot, $attempt->rounds->all(), true);
        $cycle = $entry->cycle;

        return new AttemptDetail(
            new AttemptSummary(
                '',
                $attempt->number,
                Person::from($attempt->tester),
                Named::orNull($cycle->build),
                Named::orNull($entry->configuration),
                'open',
                'not_run',
                null,
                false,
                '',
                0,
                null,
                '',
                null,
                Named::orNull($cycle->environment),
                '',
                '',
                false,
                null,
                '',
            ),
            $cycle->project->code,
            $entry->id,
            $cycle->id,
            $cycle->key,
            $cycle->name,
            $entry->case->key,
            $version->number,
            $version->title,
            (string) $version->objective,
            (string) $version->preconditions,
            (string) $version->postconditions,
            $entry->case->estimate_seconds,
            $first,
            $rounds,
            [],
            [],
            [],
            [],
            'retest' === $entry->display_state ? $entry->retest_reason : null,
            PolicySet::from(Policies::fromArray($cycle->project->policies)),
            [],
            CaseSnapshot::hasSecrets($version),
        );
    }

    private function late(LateCommand $late): LateCommandLine
    {
        return LateCommandLine::from($late, $this->commands->restore($late->kind, $late->payload)->description());
    }
}
