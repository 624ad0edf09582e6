<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Forecast\Duration;

/**
 * Cases as rows of a sheet: one row per step or one per case. Read back by {@see CaseReader} they are the same.
 */
final readonly class CaseSheet
{
    /**
     * @param  'step'|'case'  $layout
     * @param  list<string>  $customFields names
     */
    public function __construct(private string $layout, private array $customFields = []) {}

    /**
     * @return list<string>
     */
    public function header(): array
    {
        $own = array_values(
            array_filter(
                array_keys(CaseColumns::TARGETS),
                fn(string $t): bool => CaseReader::BY_STEP === $this->layout || !\in_array($t, ['routine', 'values'], true),
            ),
        );
        $at = (int) array_search(CaseReader::BY_STEP === $this->layout ? 'routine' : 'action', $own, true);

        return [
            ...\array_slice($own, 0, $at),
            ...array_map(static fn(string $n): string => CaseColumns::CUSTOM . $n, $this->customFields),
            ...\array_slice($own, $at),
        ];
    }

    /**
     * @return list<list<string>>
     */
    public function rows(CaseOut $case): array
    {
        $fields = [
            'key' => $case->key,
            'title' => $case->text->title,
            'folder' => implode(' / ', array_map(static fn(string $n): string => str_replace('/', '\/', $n), $case->folder)),
            'objective' => $case->text->objective,
            'preconditions' => $case->text->preconditions,
            'postconditions' => $case->text->postconditions,
            'type' => $case->type,
            'priority' => $case->priority,
            'state' => $case->state->words(),
            'automated' => $case->automated ? 'yes' : 'no',
            'owner' => $case->owner,
            'labels' => implode(', ', $case->labels),
            'estimate' => null === $case->estimate ? '' : Duration::fromMilliseconds($case->estimate * 1000)->toText(),
            'requirements' => implode(', ', $case->requirements),
            'table' => (string) $case->table,
            'template' => $case->template ? 'yes' : 'no',
        ];
        foreach ($case->custom as $name => $value) {
            $fields[CaseColumns::CUSTOM . $name] = $value;
        }
        $steps = CaseReader::BY_STEP === $this->layout ? $this->bySteps($case) : [$this->numbered($case)];
        $rows = [];
        foreach ([] === $steps ? [[]] : $steps as $i => $step) {
            $values = 0 === $i ? $fields + $step : $step;
            $rows[] = array_map(static fn(string $column): string => Cell::harmless($values[$column] ?? ''), $this->header());
        }

        return $rows;
    }

    /**
     * @return list<array<string, string>>
     */
    private function bySteps(CaseOut $case): array
    {
        $rows = [];
        foreach ($case->text->steps as $step) {
            $values = [];
            foreach ($step->values as $name => $value) {
                $values[] = "{$name} = " . strtr($value, ['\\' => '\\\\', "\n" => '\n']);
            }
            $rows[] = [
                'routine' => null === $step->routine ? '' : $case->routines[$step->routine] ?? '',
                'values' => implode("\n", $values),
                'action' => $step->action,
                'data' => $step->data,
                'expected' => $step->expected,
            ];
        }

        return $rows;
    }

    /**
     * @return array<string, string>
     */
    private function numbered(CaseOut $case): array
    {
        $cells = ['action' => [], 'data' => [], 'expected' => []];
        foreach ($case->text->steps as $i => $step) {
            foreach ($cells as $column => $_) {
                $cells[$column][] = rtrim($i + 1 . '. ' . $step->{$column});
            }
        }
        $written = array_filter(
            $cells,
            static fn(string $column): bool => 'action' === $column ||
                [] !== array_filter($case->text->steps, static fn(Step $s): bool => '' !== $s->{$column}),
            \ARRAY_FILTER_USE_KEY,
        );

        return array_map(static fn(array $lines): string => implode("\n", $lines), $written);
    }
}
