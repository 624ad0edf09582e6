<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Api;

use Illuminate\Cache\RateLimiter;
use Illuminate\Support\Facades\File;
use LucidStep\App\Support\Database\KeptConnection;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * What the server is told before it serves anybody.
 */
final class ServerTest extends FeatureTestCase
{
    public function test_what_is_read_at_start_is_there(): void
    {
        $paths = file(base_path('ops/preload.txt'), \FILE_IGNORE_NEW_LINES) ?: [];
        self::assertGreaterThan(300, count($paths));
        $ours = array_filter($paths, static fn(string $p): bool => 1 === preg_match('#^(app|core|packages)/#', $p));
        self::assertSame([], array_values(array_filter($ours, static fn(string $p): bool => !is_file(base_path($p)))));
        self::assertSame([], preg_grep('#/(Testing|Console)/|phpunit|faker#', $paths));
    }

    public function test_how_often_somebody_asked_is_counted_where_the_configuration_says(): void
    {
        $folder = storage_path('framework/testing/limits-' . getenv('TEST_TOKEN'));
        config(['cache.limiter' => 'limits', 'cache.stores.limits' => ['driver' => 'file', 'path' => $folder]]);
        try {
            $this->app?->forgetInstance(RateLimiter::class);
            $limiter = $this->app?->make(RateLimiter::class);
            $limiter?->hit('somebody');
            self::assertSame(1, $limiter?->attempts('somebody'));
            self::assertNotSame([], File::allFiles($folder));
        } finally {
            File::deleteDirectory($folder);
        }
    }

    /**
     * A prepared query that is thrown away after its first use costs two round trips more.
     */
    public function test_the_connection_that_a_worker_keeps_asks_each_query_once(): void
    {
        $settings = KeptConnection::of((array) config('database.connections.pgsql'), true);
        self::assertTrue($settings['options'][\PDO::ATTR_PERSISTENT]);
        self::assertTrue($settings['options'][\PDO::PGSQL_ATTR_DISABLE_PREPARES]);
        self::assertSame(3, $settings['options'][\PDO::ATTR_TIMEOUT], 'a database that is away is told soon');
        self::assertNull($settings['timezone']);
        self::assertSame('UTC', KeptConnection::of((array) config('database.connections.pgsql'), false)['timezone']);
    }
}
