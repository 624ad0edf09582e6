<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Forecast\Duration;
use LucidStep\Core\Text\ItemList;

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
        $own = array_keys(CaseColumns::TARGETS);
        $at = (int) array_search('routine', $own, true);

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
            'labels' => ItemList::write($case->labels),
            'estimate' => null === $case->estimate ? '' : Duration::fromMilliseconds($case->estimate * 1000)->toText(),
            // The title goes along: elsewhere the key is another's, or nobody's.
            'requirements' => ItemList::write(
                array_map(
                    static fn(string $key, string $title): string => "{$key} {$title}",
                    array_keys($case->requirements),
                    $case->requirements,
                ),
            ),
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
        return array_map(static fn(Step $step): array => self::step($step, $case), $case->text->steps);
    }

    /**
     * @return array<string, string> by column
     */
    private static function step(Step $step, CaseOut $case): array
    {
        $values = [];
        foreach ($step->values as $name => $value) {
            $values[] = "{$name} = " . strtr($value, ['\\' => '\\\\', "\n" => '\n']);
        }

        return [
            'routine' => null === $step->routine ? '' : $case->routines[$step->routine] ?? '',
            'values' => implode("\n", $values),
            'action' => $step->action,
            'data' => $step->data,
            'expected' => $step->expected,
        ];
    }

    /**
     * @return array<string, string> numbered lines by column; a column that says nothing is empty
     */
    private function numbered(CaseOut $case): array
    {
        $cells = [];
        foreach ($this->bySteps($case) as $i => $step) {
            foreach ($step as $column => $text) {
                $cells[$column][] = NumberedLines::line($i + 1, $text);
            }
        }
        $says = static fn(array $lines): bool => [] !== preg_grep('/^\d+\.$/D', $lines, \PREG_GREP_INVERT);

        return array_map(
            static fn(array $lines): string => implode("\n", $lines),
            array_filter($cells, static fn(array $lines, string $c): bool => 'action' === $c || $says($lines), \ARRAY_FILTER_USE_BOTH),
        );
    }
}
