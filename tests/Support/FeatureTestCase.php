<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use Illuminate\Contracts\Console\Kernel;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Testing\RefreshDatabase;
use Illuminate\Foundation\Testing\TestCase;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Models\User;

/**
 * A test against the real application and a real PostgreSQL.
 */
abstract class FeatureTestCase extends TestCase
{
    use RefreshDatabase;

    protected World $world;

    public function createApplication(): Application
    {
        $app = require __DIR__ . '/../../bootstrap/app.php';
        $app->make(Kernel::class)->bootstrap();

        return $app;
    }

    /**
     * Migrations run as the owner of the database; what is tested runs as the application.
     *
     * @return array<string, mixed>
     */
    protected function migrateFreshUsing(): array
    {
        return ['--database' => 'owner'];
    }

    /**
     * Goes on as the owner of the database, who may do what the application may not, until the test ends.
     */
    protected static function becomeOwner(): void
    {
        DB::statement('set local role ' . DB::connection()->getQueryGrammar()->wrap(config('database.connections.owner.username')));
    }

    protected function setUp(): void
    {
        parent::setUp();
        Storage::fake('local');
        config(['lucid.keys' => storage_path('framework/testing/keys-' . getenv('TEST_TOKEN'))]);
        $this->world = new World();
    }

    /**
     * @param  array<string, mixed>  $body
     * @param  array<string, string>  $headers
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    protected function as(User $user, string $method, string $path, array $body = [], array $headers = []): TestResponse
    {
        // Each request of the tests stands for itself, as it does on the server.
        $this->app?->forgetScopedInstances();

        return $this->actingAs($user)->json($method, "/api/v1{$path}", $body, $headers);
    }

    /**
     * How many queries something makes.
     */
    protected function queries(\Closure $do): int
    {
        DB::flushQueryLog();
        DB::enableQueryLog();
        $do();
        $count = count(DB::getQueryLog());
        DB::disableQueryLog();

        return $count;
    }
}
