<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Api;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\ApiOperations;
use LucidStep\Tests\Support\Everything;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * Bodies of the right shape with one thing wrong somewhere in them, however deep: done, or refused by field. The seed is fixed;
 * `./lucid bench fuzz` takes new ones and more tries.
 */
final class FuzzTest extends FeatureTestCase
{
    use ApiOperations;
    use Everything;

    /** What JSON can say and PHP cannot: put in as it stands, in place of these words. */
    private const RAW = [
        'RAW-INFINITE' => '1e400',
        'RAW-NEGATIVE' => '-1e400',
        'RAW-TINY' => '1e-400',
        'RAW-LONG' => '123456789012345678901234567890',
        'RAW-ZERO' => '-0',
        'RAW-FRACTION' => '1.0000000000000001',
        'RAW-BYTES' => "\"a\xC3(\xFFb\"",
        'RAW-HALF' => '"\ud800"',
        'RAW-NUL' => '"a\u0000b"',
    ];

    /** Orders of lists, whose cursors hold other types each. */
    private const SORTS = [
        'key',
        'order',
        'title',
        'priority',
        '-owner',
        'owner',
        'estimate',
        '-estimate',
        'walked',
        'changed',
        '-changed',
        'state',
    ];

    private User $me;

    protected function setUp(): void
    {
        parent::setUp();
        $this->spec = self::description();
        $this->ids = $this->everything($this->world);
        $this->me = $this->world->person('admin', Role::Admin);
    }

    public function test_one_thing_wrong_anywhere_in_a_body_breaks_nothing_and_is_named(): void
    {
        $seed = (int) (getenv('LUCID_FUZZ_SEED') ?: 29);
        $times = (int) (getenv('LUCID_FUZZ_TIMES') ?: 2);
        mt_srand($seed);
        $faults = [];
        $tried = 0;
        foreach ($this->operations(['post', 'put', 'patch', 'delete']) as [$method, $path, $operation]) {
            $whole = $this->plausible($operation);
            foreach (self::places($whole) as $place) {
                foreach (self::wrong(self::at($whole, $place), $times) as $name => $value) {
                    $fault = $this->fault($method, $path, self::with($whole, $place, $value));
                    $tried++;
                    if (null !== $fault) {
                        $faults[] = "{$method} {$path} {$fault} with {$name} as " . implode('.', $place);
                    }
                }
            }
        }
        self::assertSame([], $faults, "seed {$seed}");
        self::assertGreaterThan(700 * $times, $tried);
    }

    public function test_a_body_that_is_no_object_breaks_nothing(): void
    {
        $faults = [];
        foreach ($this->operations(['post', 'put', 'patch', 'delete']) as [$method, $path]) {
            foreach (['', 'null', '[]', '7', '"x"', '[null]', '{', '{"a":', "\xFF", '[[[[[[[[]]]]]]]]', str_repeat('[', 600)] as $body) {
                $fault = $this->fault($method, $path, $body);
                if (null !== $fault) {
                    $faults[] = "{$method} {$path} {$fault} with " . substr($body, 0, 20);
                }
            }
        }
        self::assertSame([], $faults);
    }

    public function test_one_thing_wrong_in_an_address_breaks_nothing(): void
    {
        $cursor = static fn(string $json): string => rtrim(strtr(base64_encode($json), '+/', '-_'), '=');
        $wrong = [
            '%00',
            '%FF%C3%28',
            'a%00b',
            '1e400',
            '-1',
            '99999999999999999999',
            '2147483648',
            '2027-02-31',
            '0190f0aa',
            '0190f0aa-0000-7000-8000-0000000000aa',
            '%27%3B%20drop%20table%20events%3B--',
            rawurlencode(str_repeat('ü', 3000)),
            '%F0%9F%9A%A2%20%26%20%7C%20%21%20%28',
            ...array_map($cursor, [
                '[1,1]',
                '["x",1]',
                '[null,1]',
                '[1,null]',
                '[true,5]',
                '[1e400,1]',
                '["\u0000",1]',
                '[[1],2]',
                '[9223372036854775807,1]',
            ]),
            ...array_map($cursor, [
                '["2026-02-31 00:00:00",1]',
                '["infinity",1]',
                '["0190f0aa",1]',
                '{"a":1}',
                'x',
                '[1,1,1]',
                '["","",""]',
                '[1]',
                '["a"]',
            ]),
        ];
        $faults = [];
        $tried = 0;
        foreach ($this->operations(['get']) as [$method, $path, $operation]) {
            $names = array_column(array_filter($operation['parameters'] ?? [], static fn(array $p): bool => 'query' === $p['in']), 'name');
            foreach ($names as $name) {
                $sorts =
                    'after' === $name && in_array('sort', $names, true)
                        ? ['', ...array_map(static fn(string $s): string => "sort={$s}&", self::SORTS)]
                        : [''];
                foreach ($wrong as $at => $value) {
                    // A list is refused for being one, whatever is in it.
                    $shapes = ["{$name}={$value}", "{$name}[]={$value}", "{$name}[a][b]={$value}"];
                    foreach (\array_slice($shapes, 0, $at < 2 ? 3 : 1) as $i => $query) {
                        foreach (0 === $i ? $sorts : [''] as $sort) {
                            $fault = $this->fault($method, "{$path}?{$sort}{$query}", '');
                            $tried++;
                            $faults = [
                                ...$faults,
                                ...null === $fault ? [] : ["{$path}?{$sort}" . mb_strimwidth($query, 0, 60, '…') . " {$fault}"],
                            ];
                        }
                    }
                }
            }
        }
        self::assertSame([], $faults);
        self::assertGreaterThan(1500, $tried);
    }

    /**
     * What is wrong with the answer; null when nothing is.
     *
     * @param  array<array-key, mixed>|string  $body
     */
    private function fault(string $method, string $path, array|string $body): ?string
    {
        $json = \is_string($body) ? $body : (string) json_encode($body, JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR);
        foreach (self::RAW as $word => $raw) {
            $json = str_replace("\"{$word}\"", $raw, $json);
        }
        DB::beginTransaction();
        $answer = $this->actingAs($this->me)->call(
            $method,
            '/api/v1' . $this->real($path),
            [],
            [],
            [],
            ['CONTENT_TYPE' => 'application/json', 'HTTP_ACCEPT' => 'application/json'],
            $json,
        );
        DB::rollBack();
        $status = $answer->getStatusCode();
        $said = (string) (($answer->baseResponse->exception ?? null)?->getMessage() ?? '');

        return match (true) {
            $status >= 500 => 'breaks (' . mb_substr($said, 0, 160) . ')',
            $status < 400 => null,
            'application/problem+json' !== $answer->headers->get('Content-Type') => 'answers with no problem',
            '' === (string) $answer->json('detail') => 'does not say why',
            422 === $status && [] === (array) $answer->json('errors') => 'names no field',
            default => null,
        };
    }

    /**
     * @param  array<array-key, mixed>  $body
     * @param  list<int|string>  $under
     * @return list<list<int|string>> every place in it, from the outside in
     */
    private static function places(array $body, array $under = []): array
    {
        $places = [];
        foreach ($body as $key => $value) {
            $places[] = $here = [...$under, $key];
            if (\is_array($value)) {
                array_push($places, ...self::places($value, $here));
            }
        }

        return $places;
    }

    /**
     * @return array<string, mixed> some of what may be wrong, by name
     */
    private static function wrong(mixed $right, int $times): array
    {
        $all = [
            'nothing' => null,
            'an empty text' => '',
            'spaces' => "  \t ",
            'an empty list' => [],
            'a list with nothing in it' => [null],
            'a list with an empty text' => [''],
            'the same twice' => \is_array($right) && array_is_list($right) ? [...$right, ...$right] : [$right, $right],
            'itself in a list' => [$right],
            'itself in an object' => ['a' => $right],
            'more than fits' => array_fill(0, 1200, $right),
            'below zero' => -1,
            'over 31 bits' => 2_147_483_648,
            'over 53 bits' => 9_007_199_254_740_993,
            'the largest' => PHP_INT_MAX,
            'a fraction' => 1.5,
            'a number as text' => '1e400',
            'a day that is none' => '2027-02-31',
            'a year that is none' => '0000-00-00',
            'a far year' => '275760-09-13T00:00:00Z',
            'no' => false,
            'a long text' => str_repeat('ü', 70_000),
            'a text against SQL' => "'; drop table events; --",
            'a text from right to left' => "\u{202E}abc\u{0000}",
            'no id' => '0190f0aa',
            'an id of nothing' => '0190f0aa-0000-7000-8000-0000000000aa',
            ...array_combine(array_keys(self::RAW), array_keys(self::RAW)),
        ];
        $some = [];
        for ($i = 0; $i < $times; $i++) {
            $name = array_keys($all)[mt_rand(0, \count($all) - 1)];
            $some[$name] = $all[$name];
        }

        return $some;
    }

    /**
     * @param  array<array-key, mixed>  $body
     * @param  list<int|string>  $place
     */
    private static function at(array $body, array $place): mixed
    {
        return array_reduce($place, static fn(mixed $in, int|string $key): mixed => \is_array($in) ? $in[$key] : null, $body);
    }

    /**
     * @param  array<array-key, mixed>  $body
     * @param  list<int|string>  $place
     * @return array<array-key, mixed>
     */
    private static function with(array $body, array $place, mixed $value): array
    {
        $key = array_shift($place);
        $body[$key ?? ''] = [] === $place ? $value : self::with((array) $body[$key ?? ''], $place, $value);

        return $body;
    }
}
