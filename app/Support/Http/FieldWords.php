<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

/**
 * What a field is called when something is wrong with it: the words of its name, and in which line of a list it stands.
 */
final class FieldWords
{
    /** Names that say nothing to people. */
    private const CALLED = [
        'ids' => 'what is chosen',
        'id' => 'number',
        'sha256' => 'file',
        'q' => 'words to find',
        'picks' => 'what is picked',
        'act' => 'what is to be done',
        'to' => 'new state',
        'device_time' => 'time of the device',
        'sent_at' => 'time of sending',
        'as_of' => 'moment',
        'active_ms' => 'time spent',
        'limit_mb' => 'room in MB',
        'seen' => 'state that was seen',
        'due_on' => 'due date',
        'starts_on' => 'first day',
        'ends_on' => 'last day',
    ];

    /**
     * @param  string  $path such as `axes.0.values`
     *
     * @return string such as `values in line 1`
     */
    public static function of(string $path): string
    {
        $parts = explode('.', $path);
        $names = array_values(array_filter($parts, static fn(string $p): bool => !is_numeric($p) && '*' !== $p));
        $lines = array_values(array_filter($parts, is_numeric(...)));
        $name = (string) end($names);
        $words = self::CALLED[$name] ?? str_replace('_', ' ', (string) preg_replace('/_(id|ids|on)$/', '', $name));
        $where = array_map(
            static fn(string $n, int $i): string => (0 === $i ? ' in line ' : ', ') . ((int) $n + 1),
            $lines,
            array_keys($lines),
        );

        return $words . implode('', $where);
    }
}
