<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\People;

use Illuminate\Routing\Route;
use Illuminate\Support\Facades\Route as Routes;
use Illuminate\Support\Str;
use LucidStep\Tests\Support\ApiOperations;
use LucidStep\Tests\Support\Everything;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\World;

final class AccessTest extends FeatureTestCase
{
    use ApiOperations;
    use Everything;

    public function test_every_address_but_two_wants_a_sign_in(): void
    {
        $routes = $this->apiRoutes();
        self::assertCount(count(array_merge(...array_values(array_map(array_values(...), self::description()['paths'])))), $routes);
        foreach ($routes as [$method, $path]) {
            $path = preg_replace('/\{\w+\}/', (string) Str::uuid7(), $path);
            $answer = $this->json($method, "/{$path}");
            if (in_array("{$method} {$path}", ['GET api/v1/welcome', 'POST api/v1/session'], true)) {
                continue;
            }
            self::assertSame(401, $answer->getStatusCode(), "{$method} {$path}");
            self::assertSame('application/problem+json', $answer->headers->get('Content-Type'), (string) $path);
            $answer->assertJsonPath('type', 'urn:lucid-step:problem:signed-out');
        }
    }

    public function test_what_stands_in_another_project_is_not_found_whatever_the_address(): void
    {
        $other = new World('OTH');
        $ids = $this->everything($other);
        self::assertNotContains('', $ids);
        $me = $this->world->person();
        foreach ($this->apiRoutes() as [$method, $path]) {
            if (!str_contains($path, '{')) {
                continue;
            }
            $path = (string) preg_replace_callback(
                '/\{(\w+)\}/',
                static fn(array $m): string => $ids[$m[1]],
                substr($path, strlen('api/v1')),
            );
            $answer = $this->as($me, $method, $path);
            self::assertSame(404, $answer->getStatusCode(), "{$method} {$path}");
            self::assertSame('application/problem+json', $answer->headers->get('Content-Type'));
        }
    }

    public function test_signing_in_and_out(): void
    {
        $person = $this->world->person();
        $this->postJson('/api/v1/session', ['email' => $person->email, 'password' => 'wrong'])
            ->assertUnprocessable()
            ->assertJsonPath('errors.email.0', 'This address and password do not belong together.');
        $this->postJson('/api/v1/session', [])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['email', 'password']]);
        $this->postJson('/api/v1/session', ['email' => strtoupper(" {$person->email}"), 'password' => 'a long password'])
            ->assertOk()
            ->assertJsonPath('projects.0.code', 'TST');
    }

    public function test_guessing_passwords_is_slowed_down(): void
    {
        for ($i = 0; $i < 6; $i++) {
            $this->postJson('/api/v1/session', ['email' => 'a@b.test', 'password' => "guess {$i}"])->assertUnprocessable();
        }
        $this->postJson('/api/v1/session', ['email' => 'a@b.test', 'password' => 'guess'])
            ->assertStatus(429)
            ->assertHeader('Content-Type', 'application/problem+json');
    }

    public function test_programs_use_tokens(): void
    {
        $token = $this->world->person()->createToken('program')->plainTextToken;
        $this->withHeader('Authorization', "Bearer {$token}")
            ->getJson('/api/v1/projects')
            ->assertOk()
            ->assertJsonCount(1);
        $this->app?->make('auth')->forgetGuards();
        $this->withHeader('Authorization', 'Bearer ls_nonsense')->getJson('/api/v1/projects')->assertUnauthorized();
    }

    public function test_the_demo_offers_its_sign_ins_only_in_demo_mode(): void
    {
        $this->getJson('/api/v1/welcome')->assertOk()->assertJsonPath('demo', true)->assertJsonCount(7, 'sign_ins');
        config(['lucid.demo' => false]);
        $this->getJson('/api/v1/welcome')->assertOk()->assertJsonPath('demo', false)->assertJsonCount(0, 'sign_ins');
    }

    public function test_an_unknown_address_and_a_wrong_method_are_problems_too(): void
    {
        $this->getJson('/api/v1/nothing')->assertNotFound()->assertHeader('Content-Type', 'application/problem+json');
        $this->putJson('/api/v1/welcome')->assertStatus(405)->assertHeader('Content-Type', 'application/problem+json');
    }

    /**
     * @return list<array{string, string}>
     */
    private function apiRoutes(): array
    {
        return array_values(
            collect(Routes::getRoutes()->getRoutes())
                ->filter(static fn(Route $r): bool => str_starts_with($r->uri(), 'api/v1'))
                ->map(static fn(Route $r): array => [$r->methods()[0], $r->uri()])
                ->all(),
        );
    }
}
