<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Record;

/**
 * The checker of bundles as one file that needs nothing but PHP: the rules of the record as the application has them, and after
 * them the program that goes through the folder.
 */
final class BundleChecker
{
    /** The files of the core that it needs, in the order in which each knows those before it. */
    private const RULES = [
        'Text/Markdown',
        'Verdict/Verdict',
        'Verdict/RoundFacts',
        'Verdict/Rounds',
        'Data/Mask',
        'Data/Placeholder',
        'Data/FilledPart',
        'Data/Template',
        'Record/NotCanonical',
        'Record/CanonicalJson',
        'Record/FreeText',
        'Record/Event',
        'Record/StoredEvent',
        'Record/AttemptRows',
        'Record/RowComparison',
        'Record/Replay',
        'Record/Snapshot',
        'Record/Protocol',
    ];

    public static function source(): string
    {
        $source = "<?php\n\ndeclare(strict_types=1);\n";
        foreach (self::RULES as $file) {
            $source .= self::block((string) file_get_contents(base_path("core/{$file}.php")));
        }

        return $source . self::block((string) file_get_contents(resource_path('record/check.php')));
    }

    /**
     * A file as a part of another: its namespace in braces.
     */
    private static function block(string $source): string
    {
        $source = (string) preg_replace('/\\A<\\?php\\s+declare\\(strict_types=1\\);\\s+/', '', $source);
        if (1 !== preg_match('/\\Anamespace ([\\w\\\\]+);\\n/', $source, $m)) {
            return "\nnamespace {\n{$source}}\n";
        }

        return "\nnamespace {$m[1]} {\n" . substr($source, \strlen($m[0])) . "}\n";
    }
}
