<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

/**
 * The case as it was walked, as an attempt keeps it and its bundle has it in `case.json`.
 *
 * @phpstan-type Values list<array{string, string}>
 */
final class Snapshot
{
    /**
     * The values of each round that the attempt began with, by column in order, secret ones masked.
     *
     * @param  array<string, mixed>  $snapshot
     *
     * @return list<array{values: Values, repeats: ?int}> none where the snapshot is of before they stood in it
     */
    public static function rounds(array $snapshot): array
    {
        $rounds = [];
        foreach ((array) ($snapshot['rounds'] ?? []) as $round) {
            $round = (array) $round;
            $values = [];
            foreach ((array) ($round['values'] ?? []) as $pair) {
                [$name, $value] = array_values((array) $pair) + ['', ''];
                $values[] = [self::word($name), self::word($value)];
            }
            $repeats = $round['repeats'] ?? null;
            $rounds[] = ['values' => $values, 'repeats' => \is_int($repeats) ? $repeats : null];
        }

        return $rounds;
    }

    /**
     * @param  array<string, mixed>  $snapshot
     *
     * @return list<array{action: string, data: string, expected: string}>
     */
    public static function steps(array $snapshot): array
    {
        $steps = [];
        foreach ((array) ($snapshot['steps'] ?? []) as $step) {
            $step = (array) $step;
            $steps[] = [
                'action' => self::word($step['action'] ?? ''),
                'data' => self::word($step['data'] ?? ''),
                'expected' => self::word($step['expected'] ?? ''),
            ];
        }

        return $steps;
    }

    private static function word(mixed $value): string
    {
        return \is_string($value) ? $value : '';
    }
}
