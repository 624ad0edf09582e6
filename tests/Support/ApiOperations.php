<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use Illuminate\Support\Facades\DB;

/**
 * Every operation of the API's description, with bodies of the right shapes.
 */
trait ApiOperations
{
    /** @var array<string, mixed> */
    protected array $spec;

    /** What an id is of, where its name does not say. */
    private const STANDS_FOR = [
        'parent_id' => 'folder',
        'assignee_id' => 'person',
        'default_assignee_id' => 'person',
        'testers' => 'person',
        'people' => 'person',
        'watchers' => 'person',
        'cases' => 'of',
        'case_version_id' => 'version',
    ];

    /** @var array<string, string> what stands for each name in an address */
    protected array $ids;

    /**
     * @return array<string, mixed>
     */
    protected static function description(): array
    {
        return json_decode((string) file_get_contents(base_path('docs/openapi.json')), true, 512, JSON_THROW_ON_ERROR);
    }

    /**
     * @param  list<string>  $methods
     * @return list<array{string, string, array<string, mixed>}> method, path and description
     */
    protected function operations(array $methods): array
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

    protected function real(string $path): string
    {
        return (string) preg_replace_callback('/\{(\w+)\}/', fn(array $m): string => $this->ids[$m[1]], $path);
    }

    /**
     * @param  array<string, mixed>  $operation
     * @return array<string, mixed> the properties of its body, by name
     */
    protected function schema(array $operation): array
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
    protected function fields(array $operation): array
    {
        return array_keys($this->schema($operation));
    }

    /**
     * A body of the right shapes; whether it makes sense is another thing.
     *
     * @param  array<string, mixed>  $operation
     * @return array<string, mixed>
     */
    protected function plausible(array $operation): array
    {
        $body = [];
        foreach ($this->schema($operation) as $name => $property) {
            $body[$name] = self::named($name) ?? $this->value($property, 0, $name);
        }

        return $body;
    }

    /**
     * What a property is by its name, where its type alone does not say.
     */
    private static function named(string $name): ?string
    {
        return match ($name) {
            'device_time', 'sent_at', 'as_of' => now()->toIso8601ZuluString('millisecond'),
            'time', 'estimate' => '12m',
            'time_zone' => 'Europe/Dublin',
            'sha256' => str_repeat('a', 64),
            'starts_on' => '2026-12-01',
            'ends_on' => '2026-12-20',
            default => null,
        };
    }

    /**
     * @param  array<string, array<string, mixed>>  $properties
     * @return array<string, mixed>
     */
    private function values(array $properties, int $depth): array
    {
        $values = [];
        foreach ($properties as $name => $property) {
            $values[$name] = self::named($name) ?? $this->value($property, $depth, $name);
        }

        return $values;
    }

    /**
     * @param  array<string, mixed>  $property
     */
    protected function value(array $property, int $depth = 0, string $name = ''): mixed
    {
        if (isset($property['$ref'])) {
            $property = $this->spec['components']['schemas'][basename($property['$ref'])];
        }
        foreach (['oneOf', 'anyOf', 'allOf'] as $choice) {
            if (isset($property[$choice])) {
                return $this->value($property[$choice][0], $depth, $name);
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
            'array' => $depth > 3 ? [] : [$this->value($property['items'] ?? ['type' => 'string'], $depth + 1, $name)],
            'object' => $depth > 3 ? [] : $this->values($property['properties'] ?? [], $depth + 1),
            default => match ($property['format'] ?? '') {
                'uuid' => $this->ids[self::STANDS_FOR[$name] ?? str_replace('_id', '', $name)] ?? $this->ids['entry'],
                'date' => '2027-01-02',
                'date-time' => '2027-01-02T10:00:00Z',
                default => 'plain words',
            },
        };
    }

    /**
     * @return array<string, int> how many rows each table has, and how often one of them was written
     */
    protected function everythingKept(): array
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
