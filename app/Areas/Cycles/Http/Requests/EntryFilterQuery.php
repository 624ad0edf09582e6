<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Http\Requests;

use Illuminate\Http\Request;
use LucidStep\App\Areas\Cycles\Data\EntryFilter;

/**
 * What entries are narrowed to, read from an address.
 */
final class EntryFilterQuery
{
    public const DESCRIBED = [
        'q' => 'Words of the title, or a key',
        'shows' => 'A verdict, `in_progress`, `retest`, `not_run` or `held`',
        'who' => 'An assignee’s id, or `nobody`',
        'on' => 'A configuration’s id',
        'outdated' => '`yes`: only those whose case was changed since they were planned',
        'joined' => '`yes`: only those that conditions join',
        'ids' => 'Only these, with commas between',
    ];

    public const SORT = '`position`, `title`, `shows`, `who`, `time` or `defects`, backwards with a minus before it';

    public static function of(Request $request): EntryFilter
    {
        $query = $request->query;

        return new EntryFilter(
            $query->getString('q'),
            $query->getString('shows'),
            $query->getString('who'),
            $query->getString('on'),
            'yes' === $query->getString('outdated'),
            'yes' === $query->getString('joined'),
            array_values(array_filter(explode(',', $query->getString('ids')))),
        );
    }
}
