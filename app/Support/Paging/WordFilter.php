<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Paging;

use Illuminate\Database\Query\Builder;

/**
 * Narrows a list to what holds all of some words, each of them somewhere in one of its columns.
 */
final class WordFilter
{
    /** More of what is asked is not read. */
    private const LONGEST = 200;

    public static function narrow(Builder $query, string $words, string ...$columns): void
    {
        foreach (preg_split('/\s+/u', trim(mb_substr($words, 0, self::LONGEST)), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $word) {
            $query->whereAny(array_values($columns), 'ilike', '%' . addcslashes($word, '%_\\') . '%');
        }
    }
}
