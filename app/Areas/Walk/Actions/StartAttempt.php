<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Support\Carbon;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Cycles\Exceptions\CycleConflict;
use LucidStep\App\Areas\Cycles\Queries\ReadCycle;
use LucidStep\App\Areas\Setup\Queries\ProjectReferences;
use LucidStep\App\Areas\Walk\Exceptions\EntryConflict;
use LucidStep\App\Areas\Walk\Queries\CaseSnapshot;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\CaseVersion;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\App\Support\Record\CycleChain;
use LucidStep\App\Support\Record\Journal;
use LucidStep\App\Support\Secrets\RoundValues;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Execution\AttemptSize;
use LucidStep\Core\Planning\CycleState;
use LucidStep\Core\Record\CanonicalJson;
use LucidStep\Core\Record\Chain;
use LucidStep\Core\Verdict\AttemptState;
use LucidStep\Core\Verdict\Policies;
use LucidStep\Core\Verdict\Verdict;

/**
 * Starts a walk of an entry, or goes on with the person's own open attempt.
 *
 * @phpstan-type WalkedOn array{build_id?: ?string, configuration_id?: ?string, environment_id?: ?string, environment?: ?string}
 */
final readonly class StartAttempt
{
    public function __construct(
        private Journal $journal,
        private CycleChain $chain,
        private RefreshEntry $refresh,
        private ReadCycle $read,
    ) {}

    /**
     * @param  bool  $again start again: the open attempt is closed as abandoned
     * @param  ?string  $word  why a warned entry is walked all the same
     * @param  WalkedOn  $on by default as planned
     *
     * @throws Conflict               when the cycle is not released, the entry is held, or another person walks it
     * @throws AuthorizationException when only the assignee records
     */
    public function __invoke(
        Entry $entry,
        User $user,
        Role $role,
        DeviceStamp $stamp,
        bool $again = false,
        ?string $word = null,
        array $on = [],
    ): Attempt {
        ProjectReferences::check(
            $entry->project_id,
            $on['build_id'] ?? null,
            $on['configuration_id'] ?? null,
            $on['environment_id'] ?? null,
        );
        $this->chain->hold($entry->id);
        $entry = Entry::query()->lockForUpdate()->findOrFail($entry->id);
        $entry->load('cycle', 'case');
        $project = Project::query()->findOrFail($entry->project_id);
        $policies = Policies::fromArray($project->policies);
        if (CycleState::Released !== $entry->cycle->state) {
            throw CycleConflict::notReleased($entry->cycle->state, '; its entries cannot be walked');
        }
        $open = null === $entry->open_attempt_id ? null : Attempt::query()->lockForUpdate()->with('tester')->find($entry->open_attempt_id);
        if (null !== $open && $open->tester_id !== $user->id) {
            throw EntryConflict::walkedByAnother($open);
        }
        if (null !== $open && !$again) {
            return $open;
        }
        if (!$policies->letsRecord($entry->assignee_id, $user->id, $role->leads())) {
            throw new AuthorizationException('Only the assignee records this entry.');
        }
        $word = trim((string) $word) ?: (string) $open?->override_reason;
        $readiness = $this->read->readiness($entry);
        if ('held' === $readiness->is) {
            throw EntryConflict::held($readiness->reasons, $project->time_zone);
        }
        if ([] !== $readiness->warnings && '' === $word) {
            throw ValidationException::withMessages([
                'word' => 'This entry depends on another that is not ready. Say in a word why you walk it now.',
            ]);
        }
        if (null !== $open) {
            $this->journal->append($open, $user, 'abandoned', [], $stamp);
            $open->state = AttemptState::Abandoned;
            $open->finished_at = Carbon::now();
            $open->save();
        }
        if (null === $entry->assignee_id && $policies->openingTakes) {
            $entry->assignee_id = $user->id;
        }

        return $this->begin($entry, $user, $stamp, $word, $on);
    }

    /**
     * Takes in an attempt that a device began while the server was away. Whatever was walked is kept: when it could not begin
     * as it did (somebody else walks the entry, it is held by now, its cycle is closed), it stands beside the others.
     *
     * @param  ?Role  $role    null when the person left the project meanwhile
     * @param  string  $id      made on the device
     * @param  string  $version the version of the case that the device had
     * @param  ?string  $parallelReason  why it stands beside the others in any case
     *
     * @throws ValidationException when the version is not one of the entry's case, or the id is another attempt's
     */
    public function takeIn(
        Entry $entry,
        User $user,
        ?Role $role,
        DeviceStamp $stamp,
        string $id,
        string $version,
        ?string $parallelReason = null,
    ): Attempt {
        $this->chain->hold($entry->id);
        $entry = Entry::query()->lockForUpdate()->findOrFail($entry->id);
        $entry->load('cycle', 'case');
        $there = Attempt::query()->find($id);
        if (null !== $there) {
            return $there->entry_id === $entry->id && $there->tester_id === $user->id
                ? $there
                : throw ValidationException::withMessages(['id' => 'This id belongs to another attempt.']);
        }
        if (!CaseVersion::query()->whereKey($version)->where('case_id', $entry->case_id)->exists()) {
            throw ValidationException::withMessages(['case_version_id' => 'This is no version of the case.']);
        }
        $policies = Policies::fromArray(Project::query()->findOrFail($entry->project_id)->policies);
        $open = null === $entry->open_attempt_id ? null : Attempt::query()->lockForUpdate()->with('tester')->find($entry->open_attempt_id);
        $readiness = $this->read->readiness($entry);
        $parallelReason ??= match (true) {
            true !== $role?->records() => "{$user->name} does not record in this project any more.",
            null !== $open && $open->tester_id !== $user->id => "{$open->tester->name} walked this entry at the same time.",
            null !== $open => 'Another attempt of the same person was open.',
            CycleState::Released !== $entry->cycle->state => "The cycle is {$entry->cycle->state->label()}.",
            null !== $entry->case->binned_at => 'The case is in the bin.',
            'held' === $readiness->is => 'The entry was held when it arrived.',
            !$policies->letsRecord($entry->assignee_id, $user->id, $role->leads()) => 'Only the assignee records this entry.',
            default => null,
        };
        if (null === $parallelReason && null === $entry->assignee_id && $policies->openingTakes) {
            $entry->assignee_id = $user->id;
        }

        return $this->begin(
            $entry,
            $user,
            $stamp,
            [] === $readiness->warnings ? '' : 'Begun while the server was away',
            [],
            $id,
            $version,
            $parallelReason,
        );
    }

    /**
     * @param  WalkedOn  $on
     */
    private function begin(
        Entry $entry,
        User $user,
        DeviceStamp $stamp,
        string $word,
        array $on,
        ?string $id = null,
        ?string $version = null,
        ?string $parallelReason = null,
    ): Attempt {
        $version = CaseVersion::query()
            ->with('steps')
            ->findOrFail($version ?? $entry->case_version_id);
        $isWalked = null !== $id;
        $id ??= (string) Str::uuid7();
        $rows = CaseSnapshot::rows($entry, $version);
        $snapshot = $this->snapshot($entry, $version, $rows);
        // What a device walked already is taken in, however large.
        $tooLarge = $isWalked ? null : AttemptSize::tooLarge(\count($snapshot['steps']), \count($rows));
        if (null !== $tooLarge) {
            throw EntryConflict::tooLarge($tooLarge);
        }
        $attempt = new Attempt([
            'id' => $id,
            'project_id' => $entry->project_id,
            'entry_id' => $entry->id,
            'number' => $entry->attempts_count + 1,
            'tester_id' => $user->id,
            'build_id' => $on['build_id'] ?? $entry->cycle->build_id,
            'configuration_id' => $on['configuration_id'] ?? $entry->configuration_id,
            'environment_id' => $on['environment_id'] ?? $entry->cycle->environment_id,
            'environment' => trim((string) ($on['environment'] ?? '')),
            'parallel_reason' => $parallelReason,
            'remark' => '',
            'state' => AttemptState::Open,
            'snapshot' => $snapshot,
            'has_verdict' => false,
            'roll_up' => Verdict::NotRun,
            'verdict' => null,
            'overruled' => false,
            'note' => '',
            'active_ms' => 0,
            'corrected_ms' => null,
            'finished_at' => null,
            'override_reason' => '' === $word ? null : $word,
            'started_at' => Carbon::now(),
            'sequence' => 0,
            'head' => Chain::start($id),
        ]);
        $attempt->save();
        InsertRounds::into($attempt, array_map(static fn(array $row): array => ['data_row' => $row], $rows));
        $this->journal->append(
            $attempt,
            $user,
            'started',
            [...self::said($attempt), 'case_version' => $version->id, 'word' => $word],
            $stamp,
        );
        $attempt->save();
        ($this->refresh)($entry);

        return $attempt;
    }

    /**
     * What the event that starts an attempt says of it, wherever it starts.
     *
     * @return array<string, mixed>
     */
    public static function said(Attempt $attempt): array
    {
        return [
            'number' => $attempt->number,
            'tester' => $attempt->tester_id,
            'build' => $attempt->build_id,
            'configuration' => $attempt->configuration_id,
            'environment_id' => $attempt->environment_id,
            'environment' => $attempt->environment,
            ...null === $attempt->parallel_reason ? [] : ['parallel_reason' => $attempt->parallel_reason],
            ...null === $attempt->late_of_id ? [] : ['late_of' => $attempt->late_of_id],
            'snapshot_sha256' => hash('sha256', CanonicalJson::encode($attempt->snapshot)),
        ];
    }

    /**
     * The case as it is walked: later versions of it leave this attempt alone.
     *
     * @param  list<array<string, mixed>>  $rows that it is walked with
     *
     * @return array{steps: list<array<string, mixed>>, ...}
     */
    private function snapshot(Entry $entry, CaseVersion $version, array $rows): array
    {
        $columns = CaseSnapshot::columns($version);

        return [
            'case_id' => $entry->case_id,
            'key' => $entry->case->key,
            'version' => $version->number,
            'title' => $version->title,
            'objective' => $version->objective,
            'preconditions' => $version->preconditions,
            'postconditions' => $version->postconditions,
            'steps' => CaseSnapshot::steps($version, $entry->project_id),
            'secret' => CaseSnapshot::hasSecrets($version),
            'columns' => $columns,
            'rounds' => array_map(
                static fn(array $row): array => ['values' => RoundValues::masked($row, $columns), 'repeats' => null],
                $rows,
            ),
        ];
    }
}
