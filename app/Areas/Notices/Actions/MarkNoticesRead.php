<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Notices\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\User;

/**
 * Marks all notices to a person as read.
 */
final class MarkNoticesRead
{
    public function __invoke(User $user): void
    {
        DB::table('notices')
            ->where('user_id', $user->id)
            ->whereNull('read_at')
            ->update(['read_at' => Carbon::now()]);
    }
}
