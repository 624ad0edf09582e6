<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

use LucidStep\Core\Forecast\Duration;
use LucidStep\Core\Text\ItemList;
use LucidStep\Core\Text\Markdown;

/**
 * A case as Markdown, to be read by people.
 */
final class MarkdownCases
{
    public static function case(CaseOut $case): string
    {
        $facts = [
            'Folder' => implode(' / ', $case->folder),
            'State' => $case->state->words(),
            'Type' => $case->type,
            'Priority' => $case->priority,
            'Automated' => $case->automated ? 'yes' : '',
            'Owner' => $case->owner,
            'Labels' => ItemList::write($case->labels),
            'Estimate' => null === $case->estimate ? '' : Duration::fromMilliseconds($case->estimate * 1000)->toText(),
            'Requirements' => implode(', ', array_keys($case->requirements)),
            'Data table' => (string) $case->table,
            ...$case->custom,
        ];
        $out = "## {$case->key} " . self::line($case->text->title) . "\n\n";
        foreach (array_filter($facts, static fn(string $v): bool => '' !== $v) as $name => $value) {
            $out .= '- **' . self::line((string) $name) . ':** ' . self::line($value) . "\n";
        }
        foreach (['Objective' => $case->text->objective, 'Preconditions' => $case->text->preconditions] as $name => $text) {
            $out .= '' === $text ? '' : "\n### {$name}\n\n" . Markdown::withoutHtml($text) . "\n";
        }
        if ([] !== $case->text->steps) {
            $out .= "\n### Steps\n\n| | Action | Data | Expected |\n|---|---|---|---|\n";
        }
        foreach ($case->text->steps as $i => $step) {
            $cells =
                null === $step->routine
                    ? [$step->action, $step->data, $step->expected]
                    : [
                        'Routine: ' . ($case->routines[$step->routine] ?? ''),
                        implode(
                            "\n",
                            array_map(
                                static fn(string $n, string $v): string => "{$n} = {$v}",
                                array_map(strval(...), array_keys($step->values)),
                                array_values($step->values),
                            ),
                        ),
                        '',
                    ];
            $out .= '| ' . ($i + 1) . ' | ' . implode(' | ', array_map(self::cell(...), $cells)) . " |\n";
        }

        return $out .
            ('' === $case->text->postconditions
                ? ''
                : "\n### Postconditions\n\n" . Markdown::withoutHtml($case->text->postconditions) . "\n") .
            "\n";
    }

    private static function line(string $text): string
    {
        return Markdown::withoutHtml(trim((string) preg_replace('/\s+/u', ' ', $text)));
    }

    private static function cell(string $text): string
    {
        return str_replace(["\n", '|'], ['<br>', '\|'], Markdown::withoutHtml(trim($text)));
    }
}
