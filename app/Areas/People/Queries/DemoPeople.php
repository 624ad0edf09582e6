<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Queries;

/**
 * The people of the demo.
 */
final class DemoPeople
{
    /** Every demo sign-in has this password. It works in demo mode only, where nothing is real. */
    public const PASSWORD = 'lantern-on-the-path';

    /**
     * @return list<array{name: string, email: string, role: string}>
     */
    public function all(): array
    {
        $lines = file(base_path('demo/people.csv'), \FILE_IGNORE_NEW_LINES | \FILE_SKIP_EMPTY_LINES) ?: [];

        return array_map(static function (string $line): array {
            [$name, $email, $role] = str_getcsv($line, ',', '"', '');

            return ['name' => (string) $name, 'email' => (string) $email, 'role' => (string) $role];
        }, \array_slice($lines, 1));
    }
}
