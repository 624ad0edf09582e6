<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Queries;

use LucidStep\App\Areas\Walk\Data\StepText;
use LucidStep\App\Support\Secrets\RoundValues;
use LucidStep\Core\Data\FilledPart;
use LucidStep\Core\Data\Template;

/**
 * The steps of an attempt with the values of a round filled in.
 *
 * @phpstan-import-type SnapshotStep from StepText
 */
final class AttemptText
{
    /**
     * @param  list<array<string, mixed>>  $steps of the snapshot, which is read once for all rounds: reading it is dear
     * @param  array<array-key, string>  $values  by name in lower case, as {@see RoundValues::of()} reads them
     * @param  list<string>  $secrets names in lower case whose values are not told
     * @param  bool  $marked whether values stand as code in action and expected, which are Markdown: so nothing in a value is read as such
     *
     * @return list<SnapshotStep> the steps with the values of a round filled in, and the names of those in each
     */
    public static function steps(array $steps, array $values, array $secrets, bool $marked = false): array
    {
        $shown = $code = [];
        foreach ($values as $name => $value) {
            $part = new FilledPart($value, (string) $name, \in_array((string) $name, $secrets, true));
            [$shown[$name], $code[$name]] = [$part->shown(), $marked ? $part->markdown() : $part->shown()];
        }

        return array_map(static function (array $s) use ($shown, $code): array {
            $uses = [];

            return [
                'position' => (int) $s['position'],
                'action' => self::filled($s['action'], $code, $uses),
                'data' => self::filled($s['data'], $shown, $uses),
                'expected' => self::filled($s['expected'], $code, $uses),
                'files' => $s['files'] ?? [],
                'routines' => $s['routines'] ?? [],
                'uses' => array_values($uses),
                'carried_at' => $s['carried_at'] ?? null,
            ];
        }, $steps);
    }

    /**
     * @param  array<array-key, string>  $values what each name is written as, by name in lower case
     * @param  array<array-key, string>  $uses the names that were filled in, by name in lower case; grows
     */
    private static function filled(string $text, array $values, array &$uses): string
    {
        if ([] === $values || (!str_contains($text, '{{') && !str_contains($text, '\\'))) {
            return $text;
        }
        // The same texts are filled for every round: each is taken apart once.
        /** @var array<string, Template> $parsed */
        static $parsed = [];
        if (\count($parsed) > 5000) {
            $parsed = [];
        }
        $template = $parsed[$text] ??= Template::parse($text);
        foreach ($template->places as $key => $name) {
            if (isset($values[$key])) {
                $uses[$key] = $name;
            }
        }

        return $template->write($values);
    }
}
