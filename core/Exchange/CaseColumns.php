<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

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

    /**
     * Which column is what, by its header. Each target is taken once, by the closest header.
     *
     * @param  list<string>  $header
     * @param  list<string>  $customFields names
     *
     * @return list<?string> a target for each column, null for one that is left out
     */
    public static function guess(array $header, array $customFields = []): array
    {
        $targets = array_fill(0, \count($header), null);
        $words = array_map(self::words(...), $header);
        $known = self::TARGETS;
        foreach ($customFields as $name) {
            $known[self::CUSTOM . $name] = [self::words($name), self::words(self::CUSTOM . $name)];
        }
        foreach ($known as $target => $names) {
            foreach ($names as $name) {
                $at = array_search($name, $words, true);
                if (false !== $at && null === $targets[$at]) {
                    $targets[$at] = $target;
                    break;
                }
            }
        }

        return $targets;
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
