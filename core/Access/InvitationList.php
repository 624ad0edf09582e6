<?php

declare(strict_types=1);

namespace LucidStep\Core\Access;

/**
 * People to invite, as they are pasted: a line each, with an address, and a name and a role if one likes, divided by comma,
 * semicolon or tab (as a table gives them) or as mail programs write them (`Ana Bell <ana@example.test>`).
 */
final class InvitationList
{
    /** So many lines at once. */
    public const MOST = 5000;

    public const LONGEST = 254;

    /** Heads of tables, which invite nobody. */
    private const HEADS = ['mail', 'e-mail', 'email', 'mail address', 'email address', 'address', 'name', 'role'];

    /**
     * @param  string  $role for lines that name none
     *
     * @return list<InvitationLine> without empty lines and the head of a table
     */
    public static function read(string $text, string $role): array
    {
        $lines = $seen = [];
        $text = str_starts_with($text, "\u{FEFF}") ? substr($text, 3) : $text;
        foreach (preg_split('/\r\n|\r|\n/', $text) ?: [] as $at => $raw) {
            $typed = trim($raw);
            $cells = self::cells($typed);
            if ('' === $typed || self::isHead($cells)) {
                continue;
            }
            $line = self::line($at + 1, $typed, $cells, $role);
            if (null === $line->problem && isset($seen[$line->email])) {
                $line = self::refused($line, "The same address stands in line {$seen[$line->email]}.");
            }
            $seen[$line->email] ??= $line->number;
            $lines[] = $line;
        }

        return $lines;
    }

    /**
     * @return list<string>
     */
    private static function cells(string $line): array
    {
        // A name may hold a comma when it stands in quotes.
        $by = match (true) {
            str_contains($line, "\t") => "\t",
            str_contains($line, ';') => ';',
            default => ',',
        };

        return array_map(static fn(?string $cell): string => trim((string) $cell), str_getcsv($line, $by, '"', ''));
    }

    /**
     * @param  list<string>  $cells
     */
    private static function isHead(array $cells): bool
    {
        return [] === array_diff(array_map(mb_strtolower(...), array_filter($cells)), self::HEADS);
    }

    /**
     * @param  list<string>  $cells
     */
    private static function line(int $number, string $typed, array $cells, string $role): InvitationLine
    {
        $emails = $names = [];
        $unknown = null;
        foreach ($cells as $cell) {
            $lower = mb_strtolower($cell);
            if (1 === preg_match('/^(.*?)<?([^\s<>"]+@[^\s<>"]+)>?\s*$/u', $cell, $found)) {
                $emails[] = mb_strtolower($found[2]);
                $names[] = trim($found[1], " \t\"'");
            } elseif (null !== Role::tryFrom($lower)) {
                $role = $lower;
            } elseif ('' !== $cell) {
                // After name and address stands the role.
                $unknown = [] !== $emails && [] !== array_filter($names) ? $cell : $unknown;
                $names[] = $cell;
            }
        }
        $name = mb_strimwidth(implode(' ', array_filter($names, static fn(string $n): bool => '' !== $n && $n !== $unknown)), 0, 200);
        $email = $emails[0] ?? '';
        $line = new InvitationLine($number, mb_strimwidth($typed, 0, 400), $email, $name, $role);

        return match (true) {
            [] === $emails => self::refused($line, 'There is no mail address in this line.'),
            \count($emails) > 1 => self::refused(
                $line,
                'There are two addresses in this line. Write each person into a line of their own.',
            ),
            !self::isAddress($email) => self::refused($line, "“{$email}” is no mail address."),
            null !== $unknown => self::refused(
                $line,
                "“{$unknown}” is no role. Roles are " . implode(', ', array_column(Role::cases(), 'value')) . '.',
            ),
            default => $line,
        };
    }

    /**
     * Letters of every language may stand before and behind the @.
     */
    public static function isAddress(string $email): bool
    {
        [$name, $host] = [...explode('@', $email, 2), ''];
        $ascii = '' === $host ? false : idn_to_ascii($host);

        return \strlen($email) <= self::LONGEST &&
            false !== $ascii &&
            false !== filter_var("{$name}@{$ascii}", \FILTER_VALIDATE_EMAIL, \FILTER_FLAG_EMAIL_UNICODE);
    }

    private static function refused(InvitationLine $line, string $why): InvitationLine
    {
        return new InvitationLine($line->number, $line->text, $line->email, $line->name, $line->role, $why);
    }
}
