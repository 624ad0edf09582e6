<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;

/**
 * Writes down that a person has a case open to write.
 */
final class RecordPresence
{
    public function __invoke(TestCase $case, User $user): void
    {
        $row = ['case_id' => $case->id, 'user_id' => $user->id, 'seen_at' => Carbon::now()];
        DB::table('case_editing')->upsert([$row], ['case_id', 'user_id'], ['seen_at']);
    }
}
