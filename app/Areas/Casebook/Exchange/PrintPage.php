<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exchange;

use Illuminate\Support\Str;
use LucidStep\App\Models\Project;
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
        fwrite($out, view('print-head', ['title' => "{$project->name}: casebook"])->render());
        $bytes = 0;
        $source = static function (string $sha256) use ($picture, &$bytes): ?string {
            $content = $bytes < self::MOST_PICTURE_BYTES ? $picture($sha256) : null;
            $bytes += \strlen((string) $content);
            $type = (string) (new \finfo(\FILEINFO_MIME_TYPE))->buffer((string) $content);

            return str_starts_with($type, 'image/') ? "data:{$type};base64," . base64_encode((string) $content) : null;
        };
        foreach ($cases as $case) {
            fwrite(
                $out,
                view('casebook.print-case', [
                    'case' => $case,
                    'facts' => self::facts($case),
                    'markdown' => self::markdown(...),
                    'picture' => $source,
                ])->render(),
            );
        }
        fwrite($out, "</body>\n</html>\n");
        fclose($out);
    }

    /**
     * @return list<string> what is to be known of a case beside its text
     */
    private static function facts(CaseOut $case): array
    {
        $facts = [
            implode(' / ', $case->folder),
            $case->state->words(),
            $case->type,
            $case->priority,
            implode(', ', $case->labels),
            null === $case->table ? '' : "data table {$case->table}",
        ];

        return array_values(array_filter($facts, static fn(string $f): bool => '' !== $f));
    }

    /**
     * @return string HTML; what the text brings of it is shown as text
     */
    private static function markdown(string $text): string
    {
        return Str::markdown($text, ['html_input' => 'escape', 'allow_unsafe_links' => false]);
    }
}
