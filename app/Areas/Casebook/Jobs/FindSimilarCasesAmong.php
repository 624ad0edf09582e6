<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Jobs;

use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use LucidStep\App\Areas\Casebook\Actions\FindSimilarCases;
use LucidStep\App\Models\TestCase;

/**
 * Looks for likely doubles of cases that came in together.
 */
final class FindSimilarCasesAmong implements ShouldQueue
{
    use Queueable;

    /** So many cases are looked at in one job. */
    public const MANY = 300;

    public int $tries = 1;

    /**
     * @param  list<string>  $cases ids
     */
    public function __construct(private readonly array $cases) {}

    public function handle(FindSimilarCases $find): void
    {
        foreach (TestCase::query()->whereIn('id', $this->cases)->get() as $case) {
            $find->of($case);
        }
    }
}
