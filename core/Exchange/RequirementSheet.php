<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

use LucidStep\Core\Coverage\RequirementWords;

/**
 * Requirements as rows under a header: what each column means is found by its name, or said. Columns that mean nothing here are
 * kept as details.
 */
final class RequirementSheet
{
    /** What a column can mean, with names that it goes by, folded. */
    public const MEANINGS = [
        'key' => ['key'],
        'external_id' => ['identifier', 'id', 'external id', 'reqif.foreignid', 'requirement id', 'reference'],
        'parent' => ['parent', 'above', 'parent id', 'under'],
        'level' => ['level', 'depth', 'indent'],
        'title' => ['title', 'name', 'requirement', 'summary', 'reqif.name', 'reqif.chaptername', 'heading'],
        'text' => ['text', 'description', 'reqif.text', 'reqif.description', 'details', 'body'],
    ];

    public const HEADER = ['Key', 'Identifier', 'Parent', 'Title', 'Text'];

    /** More rows than a project holds. */
    public const MOST_ROWS = 10_000;

    /**
     * What columns mean by their names.
     *
     * @param  list<string>  $header
     * @param  array<string, string>  $said what was said of them: meaning, `detail` or `none` by name
     *
     * @return list<string> a meaning, `detail` or `none` for each column
     */
    public static function meanings(array $header, array $said = []): array
    {
        $taken = $found = [];
        foreach ($header as $name) {
            $meaning = $said[$name] ?? self::meaning($name);
            if (!\in_array($meaning, ['detail', 'none'], true) && isset($taken[$meaning])) {
                $meaning = 'detail';
            }
            $taken[$meaning] = true;
            $found[] = '' === trim($name) ? 'none' : $meaning;
        }

        return $found;
    }

    /**
     * @param  iterable<int, array<int, string>>  $rows by number, the first one the header
     * @param  array<string, string>  $said
     *
     * @throws Unreadable when there is no title, or too many rows
     * @return list<RequirementRecord>
     */
    public static function read(iterable $rows, array $said = []): array
    {
        $header = null;
        $meanings = [];
        $records = [];
        /** @var array<int, int> $levels row of the last one, by level */
        $levels = [];
        foreach ($rows as $number => $cells) {
            if (null === $header) {
                $header = array_map(trim(...), self::filled($cells));
                $meanings = self::meanings($header, $said);
                if (!\in_array('title', $meanings, true)) {
                    throw Unreadable::because('No column is the title. Say which one it is.', $number);
                }

                continue;
            }
            if ('' === trim(implode('', $cells))) {
                continue;
            }
            if (\count($records) >= self::MOST_ROWS) {
                throw Unreadable::because(\sprintf('At most %s requirements are read at once.', number_format(self::MOST_ROWS)), $number);
            }
            $of = $details = [];
            foreach ($meanings as $at => $meaning) {
                $cell = trim($cells[$at] ?? '');
                if ('detail' === $meaning && '' !== $cell) {
                    $details[$header[$at]] = $cell;
                } elseif ('none' !== $meaning) {
                    $of[$meaning] = $cell;
                }
            }
            $level = max(0, (int) ($of['level'] ?? 0));
            $of += isset($of['level']) ? ['parent' => ''] : [];
            $above = array_filter($levels, static fn(int $l): bool => $l < $level, \ARRAY_FILTER_USE_KEY);
            $levels = $above + [$level => $number];
            $records[] = new RequirementRecord(
                $number,
                $of['key'] ?? '',
                new RequirementWords(
                    $of['title'] ?? '',
                    $of['text'] ?? '',
                    '' === ($of['external_id'] ?? '') ? null : $of['external_id'],
                    $details,
                ),
                $of['parent'] ?? '',
                isset($of['level']) && [] !== $above ? $above[max(array_keys($above))] : null,
                array_values(array_intersect(['title', 'text', 'external_id', 'parent'], array_keys($of))),
            );
        }

        return $records;
    }

    /**
     * Lines of text, one a requirement; what stands further in stands below the one before.
     *
     * @return list<RequirementRecord>
     */
    public static function fromOutline(string $text): array
    {
        $records = [];
        /** @var list<array{int, int}> $above indents and rows of those it could stand below */
        $above = [];
        foreach (explode("\n", str_replace(["\r\n", "\r"], "\n", $text)) as $i => $line) {
            if ('' === trim($line)) {
                continue;
            }
            preg_match('/^[\t ]*/', $line, $m);
            $indent = \strlen(str_replace("\t", '    ', $m[0] ?? ''));
            while ([] !== $above && $above[\count($above) - 1][0] >= $indent) {
                array_pop($above);
            }
            $title = trim((string) preg_replace('/^(?:[-*•]|\d+(?:\.\d+)*[.)])\s+/u', '', trim($line)));
            $records[] = new RequirementRecord($i + 1, '', new RequirementWords($title), '', $above[\count($above) - 1][1] ?? null, [
                'title',
                'parent',
            ]);
            $above[] = [$indent, $i + 1];
        }

        return $records;
    }

    private static function meaning(string $name): string
    {
        $folded = mb_strtolower(trim($name));
        foreach (self::MEANINGS as $meaning => $names) {
            if (\in_array($folded, $names, true)) {
                return $meaning;
            }
        }

        return 'detail';
    }

    /**
     * @param  array<int, string>  $cells
     *
     * @return list<string> with those that are empty
     */
    private static function filled(array $cells): array
    {
        $all = [];
        for ($i = 0; [] !== $cells && $i <= max(array_keys($cells)); $i++) {
            $all[] = $cells[$i] ?? '';
        }

        return $all;
    }
}
