<?php

declare(strict_types=1);

namespace LucidStep\App\Actions\Walk;

use Illuminate\Support\Facades\Crypt;
use LucidStep\App\Actions\Casebook\CheckCase;
use LucidStep\App\Actions\Casebook\RoutineBook;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\CaseVersion;
use LucidStep\App\Models\DataRow;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Round;
use LucidStep\Core\Data\ExpandedStep;
use LucidStep\Core\Data\FilledPart;
use LucidStep\Core\Data\Mask;
use LucidStep\Core\Data\Template;

/**
 * The steps of a walk: routines written out and rows taken at its start, values filled in when they are read. Secret
 * values are kept encrypted, and shown only to whoever walks.
 */
final class WalkedText
{
    /**
     * @return list<array<string, mixed>> the steps as the snapshot of an attempt keeps them
     */
    public static function snapshot(CaseVersion $version, string $project): array
    {
        $text = $version->text();
        $expanded = RoutineBook::with($project, CheckCase::uses($text->steps))->expand($text->steps);

        return array_map(static fn (int $i, ExpandedStep $s): array => [
            'position' => $i + 1, 'action' => $s->step->action, 'data' => $s->step->data, 'expected' => $s->step->expected, 'files' => $s->step->files, 'routines' => $s->routines,
        ], array_keys($expanded), $expanded);
    }

    /**
     * The rows that an entry is walked with, one for each round: those chosen for it, else the first of the table.
     *
     * @return non-empty-list<array<string, mixed>> values by column; a secret one as `{"secret": …}`
     */
    public static function rows(Entry $entry, CaseVersion $version): array
    {
        $table = $version->loadMissing('dataTable.rows')->dataTable;
        if (null === $table || $table->rows->isEmpty()) {
            return [[]];
        }
        $chosen = array_values(array_filter($entry->row_ids ?? []));
        $rows = [] === $chosen ? $table->rows->take(1) : $table->rows->whereIn('id', $chosen);
        $out = [];
        foreach ($rows as $row) {
            /** @var DataRow $row */
            $values = [];
            foreach ($table->columns as $i => $column) {
                $cell = $row->cells[$i] ?? '';
                $values[$column['name']] = $column['secret'] ? ['secret' => $cell] : $cell;
            }
            $out[] = $values;
        }

        return [] === $out ? [[]] : $out;
    }

    /**
     * @return list<string> the names of the table's columns in their order, which a stored row does not keep
     */
    public static function columns(CaseVersion $version): array
    {
        return array_column($version->loadMissing('dataTable')->dataTable->columns ?? [], 'name');
    }

    /**
     * Whether any value that the version is walked with is secret.
     */
    public static function hasSecrets(CaseVersion $version): bool
    {
        return [] !== array_filter($version->loadMissing('dataTable')->dataTable->columns ?? [], static fn (array $c): bool => $c['secret']);
    }

    /**
     * @param  bool  $clear whether secret values are told
     *
     * @return array{array<string, string>, list<string>} values by name in lower case, and the names of secret ones that are not told
     */
    public static function values(?Round $round, bool $clear): array
    {
        $values = $secrets = [];
        foreach ($round->data_row ?? [] as $name => $value) {
            $key = mb_strtolower((string) $name);
            if (\is_array($value)) {
                $cell = (string) ($value['secret'] ?? '');
                $values[$key] = '' === $cell ? '' : Crypt::decryptString($cell);
                if (!$clear) {
                    $secrets[] = $key;
                }
            } else {
                $values[$key] = (string) $value;
            }
        }

        return [$values, $secrets];
    }

    /**
     * @return array<string, string> the row by column, secrets masked
     */
    public static function maskedRow(?Round $round): array
    {
        $row = [];
        foreach ($round->data_row ?? [] as $name => $value) {
            $row[(string) $name] = \is_array($value) ? ('' === ($value['secret'] ?? '') ? '' : Mask::DOTS) : (string) $value;
        }

        return $row;
    }

    /**
     * What hides the round's secret values in text that leaves the walk.
     */
    public static function mask(?Round $round): Mask
    {
        [$values, $secrets] = self::values($round, false);

        return new Mask(array_values(array_intersect_key($values, array_flip($secrets))));
    }

    /**
     * @param  bool  $marked whether values stand as code in action and expected, which are Markdown: so nothing in a value is read as such
     *
     * @return list<array<string, mixed>> the steps with the values of a round filled in, and under `uses` the names of those in each
     */
    public static function steps(Attempt $attempt, ?Round $round, bool $clear, bool $marked = false): array
    {
        [$values, $secrets] = self::values($round, $clear);
        // The same texts are filled for every round: each is taken apart once.
        static $parsed = [];
        if (\count($parsed) > 5000) {
            $parsed = [];
        }
        $parts = static function (string $text) use ($values, $secrets, &$parsed): array {
            return [] === $values || !str_contains($text, '{{') && !str_contains($text, '\\') ? [new FilledPart($text)] : ($parsed[$text] ??= Template::parse($text))->fill($values, $secrets);
        };
        $join = static fn (array $of, bool $markdown): string => implode('', array_map(static fn (FilledPart $p): string => $markdown && null !== $p->name ? self::code($p->shown()) : $p->shown(), $of));

        return array_map(static function (array $s) use ($parts, $join, $marked): array {
            [$action, $data, $expected] = [$parts($s['action']), $parts($s['data']), $parts($s['expected'])];
            $uses = [];
            foreach ([...$action, ...$data, ...$expected] as $part) {
                if (null !== $part->name) {
                    $uses[mb_strtolower($part->name)] = $part->name;
                }
            }

            return [...$s, 'action' => $join($action, $marked), 'data' => $join($data, false), 'expected' => $join($expected, $marked), 'uses' => array_values($uses)];
        }, array_values((array) $attempt->snapshot['steps']));
    }

    /**
     * Text as a piece of code in Markdown, whatever it holds.
     */
    private static function code(string $text): string
    {
        preg_match_all('/`+/', $text, $ticks);
        $fence = str_repeat('`', 1 + max([0, ...array_map(strlen(...), $ticks[0])]));
        $pad = str_starts_with($text, '`') || str_ends_with($text, '`') || '' === trim($text) ? ' ' : '';

        return $fence.$pad.str_replace(["\r\n", "\n"], ' ', $text).$pad.$fence;
    }
}
