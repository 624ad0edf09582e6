<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\People;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\ApiOperations;
use LucidStep\Tests\Support\Everything;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;

/**
 * Tokens of programs do what they are for, and end.
 */
final class TokensTest extends FeatureTestCase
{
    use ApiOperations;
    use Everything;
    use Walks;

    public function test_a_token_for_reading_writes_nothing_and_one_for_nothing_reads_nothing(): void
    {
        $this->spec = self::description();
        $admin = $this->world->person('admin', Role::Admin);
        $this->ids = $this->everything($this->world) + ['person' => $admin->id, 'sha256' => str_repeat('a', 64)];
        $reads = $admin->createToken('reads', ['read'])->plainTextToken;
        $nothing = $admin->createToken('nothing', [])->plainTextToken;
        $before = $this->everythingKept();
        $tries = 0;
        foreach ($this->operations(['get', 'post', 'put', 'patch', 'delete']) as [$method, $path]) {
            // Open to guests, or closed to all but owners, whatever the token is for.
            if (
                '/welcome' === $path ||
                1 === preg_match('~^/(installation|invitation-|link-|password-|tracker-webhooks|observations)~', $path)
            ) {
                continue;
            }
            $address = $this->real($path);
            $this->with($nothing, $method, $address)->assertForbidden();
            $answer = $this->with($reads, $method, $address);
            'GET' === $method
                ? self::assertNotSame(403, $answer->getStatusCode(), $path)
                : $answer->assertForbidden()->assertJsonPath('detail', 'This token may not write.');
            $tries++;
        }
        self::assertGreaterThan(180, $tries);
        self::assertSame($before, $this->everythingKept());
        $this->with($admin->createToken('writes', ['read', 'write'])->plainTextToken, 'PUT', '/projects/TST/policies', [
            'opening_takes' => false,
        ])->assertOk();
    }

    public function test_a_token_ends_at_the_latest_after_the_days_that_are_set(): void
    {
        config(['lucid.token_days' => 10]);
        $me = $this->world->person();
        $token = $me->createToken('for ever');
        $short = $me->createToken('short', ['*'], Carbon::now()->addDay());
        $me->createToken('long', ['*'], Carbon::now()->addYears(9));
        $ends = DB::table('personal_access_tokens')->orderBy('id')->pluck('expires_at', 'name')->all();
        $days = static fn(string $end): int => (int) round(Carbon::now()->diffInDays($end));
        self::assertSame(['for ever' => 10, 'short' => 1, 'long' => 10], array_map($days, $ends));
        $this->with($token->plainTextToken, 'GET', '/projects')->assertOk();
        $this->travel(2)->days();
        $this->with($short->plainTextToken, 'GET', '/projects')->assertUnauthorized();
        $this->with($token->plainTextToken, 'GET', '/projects')->assertOk();
        $this->travel(9)->days();
        $this->with($token->plainTextToken, 'GET', '/projects')->assertUnauthorized();
        $this->travel(30)->days();
        self::assertSame(0, Artisan::call('sanctum:prune-expired', ['--hours' => 24 * 30]));
        self::assertSame(0, DB::table('personal_access_tokens')->count());
    }

    /**
     * @param  array<string, mixed>  $body
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function with(string $token, string $method, string $path, array $body = []): TestResponse
    {
        $this->app['auth']->forgetGuards();

        return $this->json($method, "/api/v1{$path}", $body, ['Authorization' => "Bearer {$token}"]);
    }
}
