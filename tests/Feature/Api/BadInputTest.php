<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Api;

use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\ApiOperations;
use LucidStep\Tests\Support\Everything;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * Whatever is sent to whatever address: it is done, or refused as a problem that says why. Nothing breaks.
 */
final class BadInputTest extends FeatureTestCase
{
    use ApiOperations;
    use Everything;

    /**
     * What is wrong is said in words that people know: no path of a field, no name of a column, no type of a program.
     */
    public function test_what_is_said_of_a_field_holds_no_technical_name(): void
    {
        $said = [];
        foreach ($this->operations(['post', 'put', 'patch', 'delete']) as [$method, $path, $operation]) {
            $good = $this->plausible($operation);
            $bad = [[]];
            foreach ([null, 'x', -1, [['x']], str_repeat('x', 30_000)] as $nonsense) {
                $bad[] = array_map(static fn(): mixed => $nonsense, $good);
                foreach (array_filter($good, is_array(...)) as $name => $list) {
                    $bad[] = [...$good, $name => [[$nonsense], $nonsense]];
                    $bad[] = [...$good, $name => array_map(static fn(): mixed => $nonsense, $list)];
                    $bad[] = [...$good, $name => [array_map(static fn(): mixed => $nonsense, (array) reset($list))]];
                }
            }
            foreach ($bad as $body) {
                DB::beginTransaction();
                $answer = $this->as($this->world->person('admin', Role::Admin), $method, $this->real($path), $body);
                $errors = 422 === $answer->getStatusCode() ? (array) $answer->json('errors') : [];
                DB::rollBack();
                foreach (array_merge(...array_values($errors) ?: [[]]) as $message) {
                    $said[$message] = "{$method} {$path}";
                }
            }
        }
        self::assertGreaterThan(150, count($said));
        $technical = array_filter(
            $said,
            static fn(string $m): bool => 1 ===
                preg_match('/\b[a-z]+_[a-z_]+\b|\b\w+\.\d+\b|\.\*|\bfield\b|\barray\b|\bUUID\b|\bstring\b|validation\./', $m),
            ARRAY_FILTER_USE_KEY,
        );
        self::assertSame([], $technical);
    }

    /**
     * Nine in the morning is another moment in each time zone: a moment says its offset, wherever one is asked for.
     */
    public function test_a_moment_without_its_offset_is_refused_by_its_field(): void
    {
        $me = $this->world->person();
        $lead = $this->world->lead();
        $entry = $this->world->entry($me);
        $attempt = $this->as($me, 'POST', "/entries/{$entry->id}/attempts")->json('attempt.id');
        $window = fn(string $at): TestResponse => $this->as($lead, 'POST', "/cycles/{$this->world->cycle->key}/entry-acts", [
            'act' => 'window',
            'ids' => [$entry->id],
            'changes' => ['not_before' => $at],
        ]);
        $note = fn(string $at): TestResponse => $this->as($me, 'POST', "/attempts/{$attempt}/notes", [
            'round' => 1,
            'step' => 1,
            'note' => 'x',
            'device_time' => $at,
            'sent_at' => $at,
        ]);
        foreach (['2026-11-29T09:00', '2026-11-29 09:00:00', '2026-11-29', '29.11.2026 09:00', 'now', '2026-11-29T09:00:00 CET'] as $at) {
            $window($at)
                ->assertUnprocessable()
                ->assertJsonStructure(['errors' => ['changes.not_before']]);
            $note($at)
                ->assertUnprocessable()
                ->assertJsonStructure(['errors' => ['device_time', 'sent_at']]);
        }
        $now = now()->utc();
        foreach ([$now->toIso8601ZuluString(), $now->format('Y-m-d\\TH:i:s.vP'), $now->setTimezone('Asia/Kolkata')->format('c')] as $at) {
            $note($at)->assertSuccessful();
        }
        $window('2026-11-29T09:00:00+01:00')->assertOk();
        self::assertSame('2026-11-29T08:00:00Z', $entry->refresh()->not_before?->toIso8601ZuluString());
    }

    private User $me;

    /** @var list<string> */
    private array $faults = [];

    protected function setUp(): void
    {
        parent::setUp();
        $this->spec = self::description();
        $this->ids = $this->everything($this->world);
        $this->me = $this->world->person('admin', Role::Admin);
    }

    public function test_nonsense_in_every_field_of_every_write_is_refused_and_breaks_nothing(): void
    {
        mt_srand(11);
        $tried = 0;
        foreach ($this->operations(['post', 'put', 'patch', 'delete']) as [$method, $path, $operation]) {
            $fields = $this->fields($operation);
            foreach ($this->junk() as $name => $value) {
                $this->send($method, $path, array_fill_keys($fields, $value), "{$name} in every field");
                $tried++;
            }
            foreach ($fields as $field) {
                $name = array_rand($this->junk());
                $this->send($method, $path, [...$this->plausible($operation), $field => $this->junk()[$name]], "{$name} as {$field}");
                $tried++;
            }
            $this->send($method, $path, $this->plausible($operation), 'what looks right');
        }
        self::assertSame([], $this->faults);
        self::assertGreaterThan(700, $tried);
    }

    public function test_nonsense_in_every_question_of_every_read_breaks_nothing(): void
    {
        $tried = 0;
        foreach ($this->operations(['get']) as [$method, $path, $operation]) {
            $names = array_map(
                static fn(array $p): string => $p['name'],
                array_values(array_filter($operation['parameters'] ?? [], static fn(array $p): bool => 'query' === $p['in'])),
            );
            foreach ($names as $name) {
                foreach (
                    [
                        "'",
                        '-1',
                        '99999999999999999999',
                        '%00',
                        'a b&c',
                        '[]=1',
                        '€',
                        str_repeat('x', 3000),
                        'none',
                        '0190f0aa-0000-7000-8000-0000000000aa',
                    ]
                    as $value
                ) {
                    $this->send($method, "{$path}?{$name}=" . rawurlencode($value), [], "{$name}={$value}");
                    $tried++;
                }
                $this->send($method, "{$path}?{$name}[]=1&{$name}[a][b]=2", [], "{$name} as a list");
            }
        }
        self::assertSame([], $this->faults);
        self::assertGreaterThan(100, $tried);
    }

    public function test_an_id_that_is_none_is_not_found_wherever_it_stands(): void
    {
        foreach ($this->operations(['get', 'post', 'put', 'patch', 'delete']) as [$method, $path]) {
            if (
                !preg_match('/\{(\w+)\}/', $path) ||
                \in_array($path, ['/projects/{project}/files/{sha256}', '/projects/{project}/files/{sha256}/thumbnail'], true)
            ) {
                continue;
            }
            foreach (["0' or 1=1", 'ü', '-', str_repeat('9', 400)] as $junk) {
                $answer = $this->as($this->me, $method, (string) preg_replace('/\{\w+\}/', rawurlencode($junk), $path));
                // What is for owners is refused before it is looked for.
                $expected = str_starts_with($path, '/installation/') ? 403 : 404;
                self::assertSame($expected, $answer->getStatusCode(), "{$method} {$path} with {$junk}");
            }
        }
    }

    /**
     * @param  array<array-key, mixed>  $body
     */
    private function send(string $method, string $path, array $body, string $what): void
    {
        DB::beginTransaction();
        $answer = $this->as($this->me, $method, $this->real($path), $body);
        DB::rollBack();
        $status = $answer->getStatusCode();
        $said = (string) (($answer->baseResponse->exception ?? null)?->getMessage() ?? $answer->baseResponse->getContent());
        $fault = match (true) {
            $status >= 500 => 'breaks',
            $status >= 400 && 'application/problem+json' !== $answer->headers->get('Content-Type') => 'is no problem',
            $status >= 400 && '' === (string) $answer->json('detail') => 'does not say why',
            422 === $status && [] === (array) $answer->json('errors') => 'names no field',
            default => null,
        };
        if (null !== $fault) {
            $this->faults[] = "{$method} {$path} {$fault} with {$what}: " . mb_substr($said, 0, 300);
        }
    }

    /**
     * @return array<string, mixed>
     */
    private function junk(): array
    {
        return [
            'nothing' => null,
            'an empty text' => '',
            'a list' => [],
            'a list in lists' => [[['x']]],
            'an object' => ['a' => ['b' => 1]],
            'a number below zero' => -1,
            'a number too large' => 9_999_999_999_999_999,
            'a fraction' => 0.5,
            'a long text' => str_repeat('x', 70_000),
            'a NUL' => "a\0b",
            'half a character' => "\xC3",
            'true' => true,
            'no id' => 'not-an-id',
        ];
    }
}
