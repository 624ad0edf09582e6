<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Queries;

use LucidStep\App\Areas\Cycles\Queries\ReadCycle;
use LucidStep\App\Areas\Today\Data\PackedEntry;
use LucidStep\App\Areas\Today\Data\WalkPack;
use LucidStep\App\Areas\Walk\Queries\AttemptRounds;
use LucidStep\App\Areas\Walk\Queries\ReadAttempt;
use LucidStep\App\Areas\Walk\Queries\ReadEarlierAttempts;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\CaseVersion;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\Core\Execution\AttemptSize;
use LucidStep\Core\Planning\CycleState;

/**
 * What a device needs to walk a person's next entries while the server is away: their steps with values filled in, as an
 * attempt would show them.
 */
final readonly class ReadPack
{
    /** So many entries are fetched beforehand: the first ones that are ready, in the order of Today. */
    public const ENTRIES = 12;

    public function __construct(private ReadCycle $read, private ReadEarlierAttempts $earlier, private ReadAttempt $attempt) {}

    public function __invoke(Project $project, User $user): WalkPack
    {
        $cycles = Cycle::query()
            ->where('project_id', $project->id)
            ->where('state', CycleState::Released)
            ->with('build', 'environment', 'project')
            ->orderBy('ends_on')
            ->orderBy('id')
            ->get();
        $mine = Entry::query()
            ->whereIn('cycle_id', $cycles->modelKeys())
            ->where('assignee_id', $user->id)
            ->whereNull('open_attempt_id')
            ->orderBy('position')
            ->get()
            ->groupBy('cycle_id')
            ->sortBy(static fn($of, $id): int => (int) array_search($id, $cycles->modelKeys(), true))
            ->flatten(1);
        $readiness = $this->read->readinessOf(
            $cycles,
            $this->read->facts(array_map(static fn(Entry $e): string => $e->id, array_values($mine->all()))),
        );
        $ready = $mine
            ->filter(static fn(Entry $e): bool => $readiness->of[$e->id]->isReady())
            ->take(self::ENTRIES)
            ->each(static fn(Entry $e) => $e->setRelation('cycle', $cycles->find($e->cycle_id)))
            ->all();
        $entries = Entry::query()->getModel()->newCollection($ready)->load('case', 'configuration');
        $versions = CaseVersion::query()
            ->whereIn('id', $entries->pluck('case_version_id'))
            ->with('steps', 'dataTable.rows')
            ->get()
            ->keyBy('id');
        $planned = [];
        foreach ($entries as $entry) {
            $version = $versions[$entry->case_version_id] ?? null;
            $attempt = null === $version ? null : AttemptRounds::planned($entry, $version, $user);
            // What cannot begin here is not begun on a device either.
            if (null !== $attempt && null === AttemptSize::tooLarge(\count($attempt->snapshot['steps']), $attempt->rounds->count())) {
                $planned[] = [$entry, $version, $attempt];
            }
        }
        $earlier = $this->earlier->each(array_map(static fn(array $p): Attempt => $p[2], $planned));
        $packed = array_map(
            fn(array $p): PackedEntry => new PackedEntry(
                $p[0]->id,
                $p[1]->id,
                $this->attempt->planned($p[0], $p[1], $p[2]),
                $earlier[$p[0]->id] ?? [],
            ),
            $planned,
        );

        return new WalkPack($packed);
    }
}
