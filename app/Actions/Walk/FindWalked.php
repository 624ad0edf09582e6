<?php

declare(strict_types=1);

namespace LucidStep\App\Actions\Walk;

use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Actions\Cycles\CycleLog;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\PlanAct;
use LucidStep\App\Models\User;
use LucidStep\App\Policies\Memberships;

/**
 * Finds the entry that a device walked while the server was away. One that was taken out of its cycle meanwhile comes back,
 * at the end of it: what was recorded is kept, and a lead sees it there.
 */
final readonly class FindWalked
{
    public function __construct(private Memberships $memberships, private CycleLog $log)
    {
    }

    /**
     * @return array{Entry, ?string} the entry, and why it is not there as it was; null when it is
     *
     * @throws ModelNotFoundException when there was no such entry, or the person had no part in it
     */
    public function __invoke(string $id, User $user): array
    {
        $entry = Str::isUuid($id) ? Entry::query()->find($id) : throw new ModelNotFoundException();
        if (null !== $entry) {
            return [$this->theirs($entry->project_id, $entry->assignee_id, $user) ? $entry : throw new ModelNotFoundException(), null];
        }
        $act = PlanAct::query()->whereNull('undone_at')->whereNotNull('cycle_id')
            ->whereRaw('before @> ?::jsonb', [json_encode(['removed' => [['id' => $id]]], \JSON_THROW_ON_ERROR)])->orderByDesc('created_at')->first();
        $row = array_values(array_filter((array) ($act->before['removed'] ?? []), static fn (mixed $r): bool => \is_array($r) && $r['id'] === $id))[0] ?? null;
        if (null === $act || null === $row || !$this->theirs($act->project_id, $row['assignee_id'], $user)) {
            throw new ModelNotFoundException();
        }
        $cycle = Cycle::query()->lockForUpdate()->findOrFail($act->cycle_id);
        // Two devices may bring it at once; the second one waited for the cycle.
        if (!DB::table('entries')->where('id', $id)->exists()) {
            $last = (int) DB::table('entries')->where('cycle_id', $cycle->id)->max('position');
            DB::table('entries')->insert([...$row, 'position' => $last + 1, 'addition_id' => null, 'updated_at' => Carbon::now()]);
            ($this->log)($cycle, $user, 'Came back: '.DB::table('cases')->where('id', $row['case_id'])->value('key').' was walked without the server before its removal was known');
        }
        $entry = Entry::query()->findOrFail($id);

        return [$entry, 'The entry was taken out of the cycle meanwhile, and came back with it.'];
    }

    /**
     * Whether what the person recorded there is kept: of those who record in the project, and of whom it was given to.
     */
    private function theirs(string $project, ?string $assignee, User $user): bool
    {
        return $assignee === $user->id || true === $this->memberships->role($user, $project)?->records();
    }
}
