<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * Which fields of an application under test are never read (rules of the job, 8): passwords, codes that are good once, payment cards. The
 * script on the page drops their values before they leave it; here they are looked for once more, as a page may lie. Both keep to
 * `tests/shared/private-fields.json`.
 */
final class PrivateField
{
    /** What names, labels and selectors of such fields say, in the languages that are common where forms are filled in. */
    private const WORDS =
        '/pass(word|wort|code|phrase)|\bpasswd|\bpwd|kennwort|mot.?de.?passe|contrase|wachtwoord|senha' .
        '|one.?time|\botp\b|einmal|\bpin\b|\btan\b|(security|verification|sicherheits|pr(ü|ue)f).?(code|nummer|number|ziffer)|2fa' .
        '|\bcv[cv]2?\b|\bcsc\b|\biban\b|(credit|debit|bank|payment).?card|kredit.?karte|karten.?nummer' .
        '|card.?(number|no\b|num\b|nr\b|code|holder|expir)|\bcc.?(num|number|no|csc|exp|name)|carte.?(bancaire|bleue)|tarjeta/iu';

    /** Names of parameters of an address whose values let somebody in. */
    private const KEYS = '/token|secret|passw|\bpwd\b|api.?key|\bkey\b|\bcode\b|session|\bsid\b|\bauth|signature|\bsig\b|jwt|otp/i';

    /** What stands in place of such a value. */
    private const HIDDEN = '…';

    /**
     * @param  string  $called name, label or selector of a field
     */
    public static function isCalledSo(string $called): bool
    {
        return 1 === preg_match(self::WORDS, $called);
    }

    /**
     * Whether a text is the number of a payment card: 13 to 19 digits with the check digit of ISO/IEC 7812-1, Annex B.
     */
    public static function isCardNumber(string $text): bool
    {
        $digits = (string) preg_replace('/[ -]/', '', trim($text));
        if (1 !== preg_match('/^\d{13,19}$/D', $digits)) {
            return false;
        }
        $sum = 0;
        foreach (str_split(strrev($digits)) as $at => $digit) {
            $twice = (int) $digit * (1 === $at % 2 ? 2 : 1);
            $sum += $twice > 9 ? $twice - 9 : $twice;
        }

        return 0 === $sum % 10;
    }

    /**
     * An address without the values of its parameters that let somebody in, before and behind the `#`.
     */
    public static function withoutKeys(string $address): string
    {
        return (string) preg_replace_callback(
            '/([?&#;])([^=&#;?\/]+)=([^&#;]*)/',
            static fn(array $m): string => 1 === preg_match(self::KEYS, $m[2]) ? "{$m[1]}{$m[2]}=" . self::HIDDEN : $m[0],
            $address,
        );
    }
}
