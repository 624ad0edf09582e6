<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exchange;

use Illuminate\Support\Str;
use LucidStep\App\Models\Project;
use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Exchange\CaseOut;

/**
 * Writes cases as one page to read and print, with their pictures in it. It needs nothing from outside.
 */
final class PrintPage
{
    private const MOST_PICTURE_BYTES = 30 * 1024 * 1024;

    /**
     * @param  iterable<CaseOut>  $cases
     * @param  \Closure(string): ?string  $picture content by SHA-256
     */
    public function write(string $path, Project $project, iterable $cases, \Closure $picture): void
    {
        $out = fopen($path, 'w') ?: throw new \RuntimeException("{$path} cannot be written.");
        fwrite(
            $out,
            '<!doctype html><html lang="en"><head><meta charset="utf-8"><meta http-equiv="Content-Security-Policy" ' .
                'content="default-src \'none\'; style-src \'unsafe-inline\'; img-src data:"><title>' .
                e($project->name) .
                ': casebook</title><style>' .
                ('body{font:11pt/1.4 "Atkinson Hyperlegible ' .
                    'Next",system-ui,sans-serif;color:#1F2733;max-width:60em;margin:2em auto;padding:0 ' .
                    '1em}h1{font-size:18pt}article{break-inside:avoid-page;border-top:1px solid ' .
                    '#8A8577;padding-top:.6em;margin-top:1.6em}h2{font-size:13pt;margin:.2em 0}') .
                ('.key,.facts{color:#586072}table{width:100%;border-collapse:collapse;margin:.6em ' .
                    '0}th,td{text-align:left;vertical-align:top;padding:.35em .6em .35em 0;border-bottom:1px solid ' .
                    '#E4DFD3}th{font-weight:400;color:#586072}tr{break-inside:avoid}td p{margin:0 0 ' .
                    '.3em}img{max-width:22em;max-height:14em;display:block;margin-top:.3em;border:1px solid ' .
                    '#E4DFD3}.data{white-space:pre-line;font-family:ui-monospace,monospace;font-size:.9em}</style></head><body><h1>') .
                e($project->name) .
                ': casebook</h1>',
        );
        $bytes = 0;
        foreach ($cases as $case) {
            fwrite(
                $out,
                '<article><h2><span class="key">' .
                    e($case->key) .
                    '</span> ' .
                    e($case->text->title) .
                    '</h2><p class="facts">' .
                    e(
                        implode(
                            ' · ',
                            array_filter(
                                [
                                    implode(' / ', $case->folder),
                                    str_replace('_', ' ', $case->state),
                                    $case->type,
                                    $case->priority,
                                    implode(', ', $case->labels),
                                    null === $case->table ? '' : "data table {$case->table}",
                                ],
                                static fn(string $f): bool => '' !== $f,
                            ),
                        ),
                    ) .
                    '</p>',
            );
            foreach (['Objective' => $case->text->objective, 'Preconditions' => $case->text->preconditions] as $name => $text) {
                fwrite($out, '' === $text ? '' : "<h3>{$name}</h3>" . self::markdown($text));
            }
            if ([] !== $case->text->steps) {
                fwrite($out, '<table><thead><tr><th></th><th>Action</th><th>Data</th><th>Expected</th></tr></thead><tbody>');
                foreach ($case->text->steps as $i => $step) {
                    fwrite($out, '<tr><td>' . ($i + 1) . '</td>' . $this->step($step, $case) . '</tr>');
                    foreach ($step->files as $file) {
                        $content = $bytes < self::MOST_PICTURE_BYTES ? $picture($file['sha256']) : null;
                        $bytes += \strlen((string) $content);
                        $type = null === $content ? false : getimagesizefromstring($content)['mime'] ?? false;
                        fwrite(
                            $out,
                            '<tr><td></td><td colspan="3">' .
                                (false === $type
                                    ? e($file['name'])
                                    : '<img alt="' .
                                        e($file['name']) .
                                        "\" src=\"data:{$type};base64," .
                                        base64_encode((string) $content) .
                                        '">') .
                                '</td></tr>',
                        );
                    }
                }
                fwrite($out, '</tbody></table>');
            }
            fwrite(
                $out,
                ('' === $case->text->postconditions ? '' : '<h3>Postconditions</h3>' . self::markdown($case->text->postconditions)) .
                    '</article>',
            );
        }
        fwrite($out, '</body></html>');
        fclose($out);
    }

    private function step(Step $step, CaseOut $case): string
    {
        if (null !== $step->routine) {
            $values = implode(
                "\n",
                array_map(
                    static fn(string $n, string $v): string => "{$n} = {$v}",
                    array_map(strval(...), array_keys($step->values)),
                    array_values($step->values),
                ),
            );

            return '<td>Routine: ' . e($case->routines[$step->routine] ?? '') . '</td><td class="data">' . e($values) . '</td><td></td>';
        }

        return '<td>' .
            self::markdown($step->action) .
            '</td><td class="data">' .
            e($step->data) .
            '</td><td>' .
            self::markdown($step->expected) .
            '</td>';
    }

    private static function markdown(string $text): string
    {
        return Str::markdown($text, ['html_input' => 'escape', 'allow_unsafe_links' => false]);
    }
}
