<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Api;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Role;
use LucidStep\App\Models\User;
use LucidStep\Tests\Support\Everything;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * Whatever is sent to whatever address: it is done, or refused as a problem that says why. Nothing breaks.
 */
final class BadInputTest extends FeatureTestCase
{
    use Everything;

    /** @var array<string, mixed> */
    private array $spec;

    /** @var array<string, string> */
    private array $ids;

    private User $me;

    /** @var list<string> */
    private array $faults = [];

    protected function setUp(): void
    {
        parent::setUp();
        $this->spec = json_decode((string) file_get_contents(base_path('docs/openapi.json')), true, 512, JSON_THROW_ON_ERROR);
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
        foreach ($this->operations(['get', 'post', 'put', 'patch', 'delete'], false) as [$method, $path]) {
            if (
                !preg_match('/\{(\w+)\}/', $path) ||
                \in_array($path, ['/projects/{project}/files/{sha256}', '/projects/{project}/files/{sha256}/thumbnail'], true)
            ) {
                continue;
            }
            foreach (["0' or 1=1", 'ü', '-', str_repeat('9', 400)] as $junk) {
                $answer = $this->as($this->me, $method, (string) preg_replace('/\{\w+\}/', rawurlencode($junk), $path));
                self::assertSame(404, $answer->getStatusCode(), "{$method} {$path} with {$junk}");
            }
        }
    }

    public function test_a_reader_changes_nothing_at_any_address(): void
    {
        $reader = $this->world->person('reader', Role::Reader);
        $own = [
            '/session',
            '/notices/read',
            '/projects/{project}/scratch',
            '/projects/{project}/filters',
            '/projects/{project}/case-exports',
            '/projects/{project}/seen',
            '/cases/{case}/messages',
            '/cases/{case}/presence',
            '/defects/{defect}/comments',
        ];
        $before = $this->everythingKept();
        foreach ($this->operations(['post', 'put', 'patch', 'delete'], false) as [$method, $path, $operation]) {
            if (\in_array($path, $own, true)) {
                continue;
            }
            DB::beginTransaction();
            $answer = $this->as($reader, $method, $this->real($path), $this->plausible($operation));
            $changed = $this->everythingKept() !== $before;
            DB::rollBack();
            self::assertFalse($changed, "{$method} {$path} changed something: {$answer->getStatusCode()}");
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

    /**
     * @param  list<string>  $methods
     * @return list<array{string, string, array<string, mixed>}> method, path and description
     */
    private function operations(array $methods, bool $real = true): array
    {
        $all = [];
        foreach ($this->spec['paths'] as $path => $operations) {
            foreach ($operations as $method => $operation) {
                if (\in_array($method, $methods, true) && '/session' !== $path) {
                    $all[] = [strtoupper($method), $path, $operation];
                }
            }
        }

        return $all;
    }

    private function real(string $path): string
    {
        return (string) preg_replace_callback('/\{(\w+)\}/', fn(array $m): string => $this->ids[$m[1]], $path);
    }

    /**
     * @param  array<string, mixed>  $operation
     * @return array<string, mixed> the properties of its body, by name
     */
    private function schema(array $operation): array
    {
        $content = $operation['requestBody']['content'] ?? [];
        $schema = ($content['application/json'] ?? ($content['multipart/form-data'] ?? []))['schema'] ?? [];
        if (isset($schema['$ref'])) {
            $schema = $this->spec['components']['schemas'][basename($schema['$ref'])];
        }

        return $schema['properties'] ?? [];
    }

    /**
     * @param  array<string, mixed>  $operation
     * @return list<string>
     */
    private function fields(array $operation): array
    {
        return array_keys($this->schema($operation));
    }

    /**
     * A body of the right shapes; whether it makes sense is another thing.
     *
     * @param  array<string, mixed>  $operation
     * @return array<string, mixed>
     */
    private function plausible(array $operation): array
    {
        return array_map(fn(array $property): mixed => $this->value($property), $this->schema($operation));
    }

    /**
     * @param  array<string, mixed>  $property
     */
    private function value(array $property, int $depth = 0): mixed
    {
        if (isset($property['$ref'])) {
            $property = $this->spec['components']['schemas'][basename($property['$ref'])];
        }
        foreach (['oneOf', 'anyOf', 'allOf'] as $choice) {
            if (isset($property[$choice])) {
                return $this->value($property[$choice][0], $depth);
            }
        }
        if (isset($property['enum'])) {
            return $property['enum'][0];
        }
        $type = (array) ($property['type'] ?? 'object');

        return match ($type[0]) {
            'integer' => 1,
            'number' => 1.5,
            'boolean' => true,
            'array' => $depth > 3 ? [] : [$this->value($property['items'] ?? ['type' => 'string'], $depth + 1)],
            'object' => $depth > 3 ? [] : array_map(fn(array $p): mixed => $this->value($p, $depth + 1), $property['properties'] ?? []),
            default => match ($property['format'] ?? '') {
                'uuid' => $this->ids['entry'],
                'date' => '2027-01-02',
                'date-time' => '2027-01-02T10:00:00Z',
                default => 'plain words',
            },
        };
    }

    /**
     * @return array<string, int> how many rows each table has, and how often one of them was written
     */
    private function everythingKept(): array
    {
        $counts = [];
        foreach (
            [
                'cases',
                'case_versions',
                'steps',
                'folders',
                'routines',
                'data_tables',
                'data_rows',
                'suites',
                'cycles',
                'entries',
                'entry_conditions',
                'attempts',
                'rounds',
                'step_results',
                'events',
                'evidence',
                'defects',
                'defect_links',
                'milestones',
                'releases',
                'builds',
                'configurations',
                'memberships',
                'projects',
                'plan_acts',
                'cycle_log',
                'late_commands',
            ]
            as $table
        ) {
            $counts[$table] = (int) DB::table($table)
                ->selectRaw('coalesce(sum(hashtext(t::text)::bigint), 0) as n')
                ->fromRaw("{$table} as t")
                ->value('n');
        }

        return $counts;
    }
}
