<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

use LucidStep\Core\Casebook\CaseState;

/**
 * What the columns of a file of cases can be, and which they seem to be.
 */
final class CaseColumns
{
    /** Where each goes, and the headers it is known by (lower case, words only). */
    public const TARGETS = [
        'key' => ['key', 'case key'],
        'title' => [
            'title',
            'name',
            'summary',
            'case',
            'test case',
            'case title',
            'case name',
            'test case title',
            'test case name',
            'test',
        ],
        'folder' => ['folder', 'path', 'folder path', 'section', 'module', 'area', 'group'],
        'objective' => ['objective', 'goal', 'purpose', 'description', 'test objective'],
        'preconditions' => [
            'preconditions',
            'precondition',
            'pre conditions',
            'pre condition',
            'prerequisites',
            'prerequisite',
            'before',
            'setup',
            'given',
        ],
        'postconditions' => [
            'postconditions',
            'postcondition',
            'post conditions',
            'post condition',
            'after',
            'cleanup',
            'clean up',
            'teardown',
        ],
        'type' => ['type', 'case type', 'test type', 'kind', 'category'],
        'priority' => ['priority', 'importance'],
        'state' => ['state', 'status'],
        'automated' => ['automated', 'automation', 'manual or automated', 'execution type'],
        'owner' => ['owner', 'author', 'responsible', 'created by', 'designer'],
        'labels' => ['labels', 'label', 'tags', 'tag', 'keywords'],
        'estimate' => ['estimate', 'estimated time', 'duration', 'time'],
        'requirements' => ['requirements', 'requirement', 'covers', 'references'],
        'table' => ['data table', 'table', 'dataset', 'data set'],
        'template' => ['template'],
        'routine' => ['routine', 'shared steps', 'shared step', 'reusable steps'],
        'values' => ['values', 'parameters', 'routine values'],
        'action' => [
            'action',
            'step',
            'steps',
            'test step',
            'test steps',
            'step action',
            'step description',
            'step details',
            'procedure',
            'instructions',
        ],
        'data' => ['data', 'test data', 'step data', 'input', 'inputs', 'input data'],
        'expected' => ['expected', 'expected result', 'expected results', 'result', 'results', 'expected outcome', 'step expected', 'then'],
    ];

    public const STEP = ['routine', 'values', 'action', 'data', 'expected'];

    /** What a column for a custom field goes to, before the field's name. */
    public const CUSTOM = 'field: ';

    /** So much of a column must look alike to be taken for what it looks like. */
    private const MOSTLY = 0.6;

    /**
     * Which column is what: by its header in a common language, else by what is in it. Each target is taken once, by the closest
     * header first.
     *
     * @param  list<string>  $header
     * @param  list<list<string>>  $values of each column, some that are not empty
     * @param  ?ImportContext  $around what the project has
     *
     * @return list<?string> a target for each column, null for one that is left out
     */
    public static function guess(array $header, array $values = [], ?ImportContext $around = null): array
    {
        $targets = array_fill(0, \count($header), null);
        $words = array_map(self::words(...), $header);
        $known = self::TARGETS;
        foreach ($around->fields ?? [] as $field) {
            $known[self::CUSTOM . $field->name] = [self::words($field->name), self::words(self::CUSTOM . $field->name)];
        }
        foreach ([$known, ForeignHeaders::TARGETS] as $some) {
            foreach ($some as $target => $names) {
                foreach (\in_array($target, $targets, true) ? [] : $names as $name) {
                    $at = array_search(self::words($name), $words, true);
                    if (false !== $at && null === $targets[$at]) {
                        $targets[$at] = $target;
                        break;
                    }
                }
            }
        }
        foreach ($targets as $at => $target) {
            $looks = null === $target && [] !== ($values[$at] ?? []) ? self::looksLike($values[$at], $around ?? new ImportContext()) : null;
            if (null !== $looks && !\in_array($looks, $targets, true)) {
                $targets[$at] = $looks;
            }
        }
        if ([] === array_intersect(['title', 'key'], $targets)) {
            $at = self::titles($targets, $values);
            if (null !== $at) {
                $targets[$at] = 'title';
            }
        }

        return array_values($targets);
    }

    /**
     * What the values of a column look like.
     *
     * @param  non-empty-list<string>  $values
     */
    private static function looksLike(array $values, ImportContext $around): ?string
    {
        $least = self::MOSTLY * \count($values);
        $fit = static fn(\Closure $is): bool => \count(array_filter($values, $is)) >= $least;
        $means = static fn(string $column, array $known): \Closure => static fn(string $v): bool => isset($known[mb_strtolower($v)]) ||
            null !== $around->meant($column, $v);

        return match (true) {
            $fit(static fn(string $v): bool => NumberedLines::isNumbered($v) && str_contains($v, "\n")) => 'action',
            $fit($means('priority', $around->priorities)) => 'priority',
            $fit(static fn(string $v): bool => null !== CaseState::fromWords($v) || null !== $around->meant('state', $v)) => 'state',
            $fit(static fn(string $v): bool => isset($around->people[mb_strtolower($v)])) => 'owner',
            $fit(static fn(string $v): bool => isset($around->tables[mb_strtolower($v)])) => 'table',
            $fit(static fn(string $v): bool => isset($around->routines[mb_strtolower($v)])) => 'routine',
            $fit(static fn(string $v): bool => 1 === preg_match('#^[^/\n]{1,60}( / [^/\n]{1,60})+$#u', $v)) => 'folder',
            $fit(static fn(string $v): bool => 1 === preg_match('/^\d+(\.\d+)?\s?(s|m|min|h)$/D', $v)) => 'estimate',
            default => null,
        };
    }

    /**
     * The column that names something else in each row, in few words: what is left of such, the first.
     *
     * @param  list<?string>  $targets
     * @param  list<list<string>>  $values
     */
    private static function titles(array $targets, array $values): ?int
    {
        foreach ($targets as $at => $target) {
            $some = null === $target ? $values[$at] ?? [] : [];
            $long = array_sum(array_map(mb_strlen(...), $some)) / max(1, \count($some));
            $many = \count(array_unique($some)) >= 0.9 * \count($some);
            if ([] !== $some && $many && $long >= 8 && $long <= 120 && [] === preg_grep('/\n/', $some)) {
                return $at;
            }
        }

        return null;
    }

    /**
     * Under which a mapping is remembered: the same headers, however they are written, give the same.
     *
     * @param  list<string>  $header
     */
    public static function fingerprint(array $header): string
    {
        return hash('sha256', implode("\n", array_map(self::words(...), $header)));
    }

    private static function words(string $header): string
    {
        return trim((string) preg_replace('/[^\p{L}\p{N}]+/u', ' ', mb_strtolower($header)));
    }
}
