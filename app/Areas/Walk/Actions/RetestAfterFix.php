<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Walk\Data\RetestLine;
use LucidStep\App\Areas\Walk\Queries\ReadRetests;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;

/**
 * Asks for all or some of the entries to be walked again that a fix is proposed for: one act, each as if it were asked for alone.
 */
final readonly class RetestAfterFix
{
    public function __construct(private ReadRetests $retests, private RequestRetest $ask) {}

    /**
     * @param  list<string>  $entries ids
     *
     * @throws ValidationException when one of them is not proposed, or still waits for another fix; then none is asked for
     */
    public function __invoke(Defect $defect, User $by, array $entries): void
    {
        $proposed = array_column($this->retests->of($defect), null, 'entry_id');
        foreach ($entries as $at => $id) {
            $line = $proposed[$id] ?? null;
            $why = match (true) {
                !($line instanceof RetestLine) => 'This entry is not proposed any more.',
                [] !== $line->waits_on => "{$line->case_key} still waits on " . implode(', ', $line->waits_on) . '.',
                $line->behind => "{$line->cycle_name} tests an earlier build: take {$line->build} into it first.",
                default => null,
            };
            if (null !== $why) {
                throw ValidationException::withMessages(["entries.{$at}" => $why]);
            }
        }
        DB::transaction(function () use ($entries, $proposed, $by): void {
            foreach ($entries as $id) {
                $line = $proposed[$id];
                ($this->ask)(Entry::query()->findOrFail($id), $by, implode(', ', $line->fixed) . " fixed in {$line->build}.");
            }
        });
    }
}
