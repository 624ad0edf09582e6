<?php

declare(strict_types=1);

namespace LucidStep\App\Console;

use Illuminate\Console\Command;
use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Defects\Actions\AttachFile;
use LucidStep\App\Areas\Walk\Actions\RemoveContent;
use LucidStep\App\Models\CaseImport;
use LucidStep\App\Models\Project;

/**
 * Drops what is only needed for a while: answers kept for repeated requests, old changes of the feed, files of
 * imports and exports.
 */
final class TidyCommand extends Command
{
    protected $signature = 'lucid:tidy';

    protected $description = 'Drop kept answers after 30 days, changes of the feed after 2 and files of imports and exports after 7';

    public function handle(Filesystem $files, RemoveContent $remove, AttachFile $attach): int
    {
        $expired = 0;
        foreach (Project::query()->whereNotNull('retention_days')->get() as $project) {
            $expired += $remove->expire($project);
        }
        $keys = DB::table('idempotency_keys')
            ->where('created_at', '<', now()->subDays(30))
            ->delete();
        $changes = DB::table('changes')
            ->where('at', '<', now()->subDays(2))
            ->delete();
        $old = 0;
        foreach ([...$files->files('imports'), ...$files->files('exports')] as $file) {
            if ($files->lastModified($file) < now()->subDays(7)->getTimestamp()) {
                $files->delete($file);
                $old++;
            }
        }
        CaseImport::query()
            ->whereIn('state', ['reading', 'ready'])
            ->where('created_at', '<', now()->subDays(7))
            ->update(['state' => 'cancelled']);
        $unsaid = $attach->forgetUnsaid(Carbon::now()->subDays(7));
        $this->info(
            "Dropped {$keys} answers, {$changes} changes and {$old} files; {$expired} files of evidence had been kept long enough, " .
                "{$unsaid} went with words that nobody said.",
        );

        return self::SUCCESS;
    }
}
