<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Queries;

/**
 * The people of the demo.
 */
final class DemoPeople
{
    /**
     * The password of every demo sign-in: another in each installation. It works in demo mode only, where nothing is real.
     */
    public static function password(): string
    {
        $password = (string) config('lucid.demo_password');

        return '' !== $password ? $password : throw new \LogicException('The demo has no password (LUCID_DEMO_PASSWORD in .env).');
    }

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
