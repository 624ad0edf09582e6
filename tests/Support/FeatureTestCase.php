<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use Illuminate\Contracts\Auth\Authenticatable;
use Illuminate\Contracts\Console\Kernel;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Testing\RefreshDatabase;
use Illuminate\Foundation\Testing\TestCase;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Database\DatabaseClock;
use Symfony\Component\HttpFoundation\File\UploadedFile as SymfonyFile;

require_once __DIR__ . '/is_uploaded_file.php';

/**
 * A test against the real application and a real PostgreSQL.
 */
abstract class FeatureTestCase extends TestCase
{
    use RefreshDatabase;

    protected World $world;

    /** @var list<SymfonyFile> what was uploaded: a made-up file is gone with its object */
    protected array $uploads = [];

    /** Whether people have looked at what they replace ({@see seeing}). */
    protected bool $looks = true;

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
        DatabaseClock::follow();
        $this->world = new World();
    }

    /**
     * Signs somebody in as a session does: the guard of the API finds them there.
     */
    public function actingAs(Authenticatable $user, $guard = null): static
    {
        // Each request of the tests stands for itself, as it does on the server.
        $this->app?->forgetScopedInstances();
        $this->app?->make('auth')->forgetGuards();

        return parent::actingAs($user, $guard ?? 'web');
    }

    /**
     * Files come in as the web server brings them, before the framework made its own of them.
     *
     * @param  array<array-key, mixed>  $data
     *
     * @return array<array-key, mixed>
     */
    protected function extractFilesFromDataArray(&$data): array
    {
        $files = parent::extractFilesFromDataArray($data);
        array_walk_recursive($files, function (mixed &$f): void {
            if ($f instanceof SymfonyFile) {
                $this->uploads[] = $f;
                $f = new SymfonyFile($f->getPathname(), $f->getClientOriginalName(), $f->getClientMimeType(), $f->getError());
            }
        });

        return $files;
    }

    /**
     * @param  array<string, mixed>  $body
     * @param  array<string, string>  $headers
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    protected function as(User $user, string $method, string $path, array $body = [], array $headers = []): TestResponse
    {
        return $this->actingAs($user)->json($method, "/api/v1{$path}", $this->seeing($user, $method, $path, $body), $headers);
    }

    /**
     * What replaces something whole is sent by somebody who has just looked at it, unless the test says otherwise.
     *
     * @param  array<string, mixed>  $body
     *
     * @return array<string, mixed>
     */
    private function seeing(User $user, string $method, string $path, array $body): array
    {
        $told = array_key_exists('seen', $body) || array_key_exists('revision', $body);
        if (!$this->looks || $told || !in_array($method, ['PUT', 'PATCH'], true)) {
            return $body;
        }
        $read = fn(string $of, ?string $what): mixed => $this->actingAs($user)
            ->json('GET', "/api/v1{$of}")
            ->json($what);
        $part = (string) strrchr($path, '/');
        $from = match (1) {
            preg_match('#^(/projects/\w+)/lists/reasons-#', $path, $m) => ["{$m[1]}/walk-setup", 'seen.' . substr($part, 1)],
            preg_match('#^/suites/[^/]+$#', $path) => [$path, 'suite.seen'],
            preg_match('#^(/projects/\w+)/storage$#', $path, $m) => ["{$m[1]}/walk-setup", 'seen.storage'],
            preg_match('#^(/projects/\w+)/lists/#', $path, $m) => ["{$m[1]}/lists", 'seen.' . substr($part, 1)],
            preg_match('#^(/projects/\w+)/(axes|calendar|environments)$#', $path, $m) => ["{$m[1]}/planning-setup", "seen.{$m[2]}"],
            default => null,
        };
        if (null !== $from) {
            return [...$body, 'seen' => $read(...$from)];
        }
        if (1 === preg_match('#^(/projects/\w+)/people/([^/]+)/capacity$#', $path, $m)) {
            $people = (array) $read("{$m[1]}/planning-setup", 'people');

            return [...$body, 'seen' => array_column($people, 'seen', 'id')[$m[2]] ?? null];
        }
        if (1 === preg_match('#^/folders/([^/]+)$#', $path, $m)) {
            return [...$body, 'seen' => array_column((array) $read('/projects/TST/folders', null), 'seen', 'id')[$m[1]] ?? null];
        }
        if (1 === preg_match('#^/milestones/([^/]+)$#', $path, $m)) {
            return [...$body, 'seen' => array_column((array) $read('/projects/TST/milestones', null), 'seen', 'id')[$m[1]] ?? null];
        }
        if (1 === preg_match('#^/cycles/[^/]+$#', $path)) {
            return [...$body, 'revision' => $read("{$path}/plan", 'cycle.revision') ?? 1];
        }

        return $body;
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
