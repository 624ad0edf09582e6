<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Cycles\Actions\CycleLog;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\PlanAct;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Problems\Archived;
use LucidStep\Core\Planning\CycleLogKind;

/**
 * Finds the entry that a device walked while the server was away. One that was taken out of its cycle meanwhile comes back,
 * at the end of it: what was recorded is kept, and a lead sees it there.
 */
final readonly class RestoreWalkedEntry
{
    public function __construct(private Memberships $memberships, private CycleLog $log) {}

    /**
     * Whether it would be found, asked by the address before anything else is looked at.
     *
     * @throws Archived when nothing comes into the project any more: it waits on the device
     * @throws ModelNotFoundException when there was no such entry, or the person had no part in it
     */
    public function sure(string $id, User $user): void
    {
        $entry = Str::isUuid($id) ? Entry::query()->find($id) : throw new ModelNotFoundException();
        $row = null === $entry ? $this->removed($id) : $entry->only(['project_id', 'assignee_id']);
        [$project, $assignee] = [$row['project_id'] ?? null, $row['assignee_id'] ?? null];
        if (null === $project || !$this->theirs($project, $assignee, $user)) {
            throw new ModelNotFoundException();
        }
        $archived = $this->memberships->archived($project);
        throw_if(null !== $archived, Archived::project((string) $archived));
    }

    /**
     * @param  string  $id as {@see sure()} has let it through
     *
     * @return array{Entry, ?string} the entry, and why it is not there as it was; null when it is
     */
    public function __invoke(string $id, User $user): array
    {
        $entry = Entry::query()->find($id);
        if (null !== $entry) {
            return [$entry, null];
        }
        $row = $this->removed($id);
        $cycle = Cycle::query()
            ->lockForUpdate()
            ->whereKey($row['cycle_id'] ?? '')
            ->firstOrFail();
        // Two devices may bring it at once; the second one waited for the cycle.
        if (!DB::table('entries')->where('id', $id)->exists()) {
            $last = (int) DB::table('entries')->where('cycle_id', $cycle->id)->max('position');
            DB::table('entries')->insert([...$row, 'position' => $last + 1, 'addition_id' => null, 'updated_at' => Carbon::now()]);
            ($this->log)(
                $cycle,
                $user,
                CycleLogKind::EntriesChanged,
                'Came back: ' .
                    DB::table('cases')->where('id', $row['case_id'])->value('key') .
                    ' was walked without the server before its removal was known',
            );
        }
        $entry = Entry::query()->findOrFail($id);

        return [$entry, 'The entry was taken out of the cycle meanwhile, and came back with it.'];
    }

    /**
     * @return array<string, mixed> an entry that was taken out of its cycle, as its row was then; empty when there was none
     */
    private function removed(string $id): array
    {
        $act = PlanAct::query()
            ->whereNull('undone_at')
            ->whereNotNull('cycle_id')
            ->whereRaw('before @> ?::jsonb', [json_encode(['removed' => [['id' => $id]]], \JSON_THROW_ON_ERROR)])
            ->orderByDesc('created_at')
            ->first();

        return array_column($act->before['removed'] ?? [], null, 'id')[$id] ?? [];
    }

    /**
     * Whether what the person recorded there is kept: of those who record in the project, and of whom it was given to.
     */
    private function theirs(string $project, ?string $assignee, User $user): bool
    {
        return $assignee === $user->id || true === $this->memberships->role($user, $project)?->records();
    }
}
