<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Database;

/**
 * The settings of the connection that a worker keeps: making one (scram) takes five times as long as most requests. What is left
 * open is rolled back by PDO at the end of a request.
 */
final class KeptConnection
{
    /**
     * @param  array<string, mixed>  $settings of the connection, as configured
     * @param  bool  $zone whether the server tells the zone when the connection is made (PGTZ): then no request needs to
     *
     * @return array<string, mixed>
     */
    public static function of(array $settings, bool $zone): array
    {
        $settings['options'] = [\PDO::ATTR_PERSISTENT => true] + (array) ($settings['options'] ?? []);

        return $zone ? [...$settings, 'timezone' => null] : $settings;
    }
}
