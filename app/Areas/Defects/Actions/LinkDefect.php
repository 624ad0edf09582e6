<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Record\Journal;

/**
 * Links a defect to an attempt or one of its steps. Linking twice changes nothing.
 */
final readonly class LinkDefect
{
    public function __construct(private Journal $journal, private PublishChange $announce, private SettleRetests $settle) {}

    /**
     * @param  ?list<string>  $evidence of the attempt that belongs to it, by id; null: all of the step
     */
    public function __invoke(Defect $defect, User $user, Attempt $attempt, ?int $round, ?int $step, ?array $evidence = null): void
    {
        $entry = Entry::query()->lockForUpdate()->findOrFail($attempt->entry_id);
        $locked = Attempt::query()->lockForUpdate()->findOrFail($attempt->id);
        $added = DB::table('defect_links')->insertOrIgnore([
            'id' => (string) Str::uuid7(),
            'defect_id' => $defect->id,
            'entry_id' => $entry->id,
            'attempt_id' => $locked->id,
            'round' => $round,
            'step' => $step,
            'evidence' => null === $evidence ? null : json_encode($evidence, \JSON_THROW_ON_ERROR),
            'linked_by_id' => $user->id,
            'created_at' => Carbon::now(),
        ]);
        if (0 === $added) {
            return;
        }
        $this->journal->append(
            $locked,
            $user,
            'defect_linked',
            ['defect' => $defect->id, 'key' => $defect->key, 'round' => $round, 'step' => $step],
            new DeviceStamp(),
        );
        $locked->save();
        $entry->defects_count = DB::table('defect_links')->where('entry_id', $entry->id)->distinct()->count('defect_id');
        $entry->save();
        ($this->announce)($entry->project_id, 'entry', $entry->id, $entry->cycle_id);
        ($this->settle)($locked, $user);
    }
}
