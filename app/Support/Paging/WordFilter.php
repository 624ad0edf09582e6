<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Paging;

use Illuminate\Contracts\Database\Query\Builder;

/**
 * Narrows a list to what holds all of some words, whatever their case and accents are.
 */
final class WordFilter
{
    /** More of what is asked is not read. */
    private const LONGEST = 200;

    /**
     * @param  string  $text what holds them, folded: a column that is, or `lucid_fold(…)`
     */
    public static function narrow(Builder $query, string $words, string $text): void
    {
        foreach (preg_split('/\s+/u', trim(mb_substr($words, 0, self::LONGEST)), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $word) {
            self::holds($query, $word, $text);
        }
    }

    /**
     * Narrows a list to what holds a text as a whole.
     *
     * @param  string  $text as {@see narrow()} takes it
     */
    public static function holds(Builder $query, string $part, string $text): void
    {
        $query->whereRaw("{$text} like '%' || lucid_fold(?) || '%'", [addcslashes($part, '%_\\')]);
    }
}
