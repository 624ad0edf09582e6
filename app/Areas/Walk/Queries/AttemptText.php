<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Queries;

use LucidStep\App\Areas\Walk\Data\StepText;
use LucidStep\App\Models\Round;
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
     * @param  bool  $marked whether values stand as code in action and expected, which are Markdown: so nothing in a value is read as such
     *
     * @return list<SnapshotStep> the steps with the values of a round filled in, and the names of those in each
     */
    public static function steps(array $steps, ?Round $round, bool $clear, bool $marked = false): array
    {
        [$values, $secrets] = RoundValues::of($round, $clear);
        // The same texts are filled for every round: each is taken apart once.
        static $parsed = [];
        if (\count($parsed) > 5000) {
            $parsed = [];
        }
        $parts = static function (string $text) use ($values, $secrets, &$parsed): array {
            return [] === $values || (!str_contains($text, '{{') && !str_contains($text, '\\'))
                ? [new FilledPart($text)]
                : ($parsed[$text] ??= Template::parse($text))->fill($values, $secrets);
        };
        $join = static fn(array $of, bool $markdown): string => implode(
            '',
            array_map(static fn(FilledPart $p): string => $markdown ? $p->markdown() : $p->shown(), $of),
        );

        return array_map(static function (array $s) use ($parts, $join, $marked): array {
            [$action, $data, $expected] = [$parts($s['action']), $parts($s['data']), $parts($s['expected'])];
            $uses = [];
            foreach ([...$action, ...$data, ...$expected] as $part) {
                if (null !== $part->name) {
                    $uses[mb_strtolower($part->name)] = $part->name;
                }
            }

            return [
                'position' => (int) $s['position'],
                'action' => $join($action, $marked),
                'data' => $join($data, false),
                'expected' => $join($expected, $marked),
                'files' => $s['files'] ?? [],
                'routines' => $s['routines'] ?? [],
                'uses' => array_values($uses),
                'carried_at' => $s['carried_at'] ?? null,
            ];
        }, $steps);
    }
}
