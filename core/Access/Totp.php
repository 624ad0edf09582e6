<?php

declare(strict_types=1);

namespace LucidStep\Core\Access;

/**
 * Codes of a second factor that change every half minute: TOTP (RFC 6238) on HOTP (RFC 4226) with HMAC-SHA-1 and six digits, which is
 * what programs for it read from a QR code.
 */
final class Totp
{
    /** Seconds for which a code lasts. */
    public const PERIOD = 30;

    private const ALPHABET = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567';

    /** Codes of so many steps beside that of now are taken (RFC 6238, 5.2), for a clock that is a little off. */
    private const DRIFT = 1;

    /** Within so many steps a code is known as that of a clock that is off, and said to be so. */
    private const KNOWN = 20;

    /**
     * @return string a new secret, 160 bits in base 32 (RFC 4648)
     */
    public static function secret(): string
    {
        return self::encode(random_bytes(20));
    }

    /**
     * The code of a step.
     *
     * @param  string  $secret in base 32
     * @param  int  $step seconds since 1970 by {@see PERIOD}
     */
    public static function code(string $secret, int $step, int $digits = 6): string
    {
        $hash = hash_hmac('sha1', pack('J', $step), self::decode($secret), true);
        $at = \ord($hash[19]) & 0xf;
        /** @var array{1: int} $read */
        $read = unpack('N', substr($hash, $at, 4));

        return str_pad((string) (($read[1] & 0x7fffffff) % 10 ** $digits), $digits, '0', \STR_PAD_LEFT);
    }

    /**
     * @param  int  $time now, in seconds since 1970
     * @param  int  $used the step of the code that was taken last: it and those before are taken no more
     *
     * @return ?int the step of the code; null when it is none that is taken
     */
    public static function step(string $secret, string $code, int $time, int $used): ?int
    {
        $drift = self::offset($secret, $code, $time, self::DRIFT);
        $step = null === $drift ? null : intdiv($time, self::PERIOD) + $drift;

        return null === $step || $step <= $used ? null : $step;
    }

    /**
     * By how many seconds the clock that made a code is off, when it is too far off to be taken.
     *
     * @return ?int seconds, ahead when positive; null when the code is no code of around now
     */
    public static function clockIsOff(string $secret, string $code, int $time): ?int
    {
        $steps = self::offset($secret, $code, $time, self::KNOWN);

        return null === $steps || abs($steps) <= self::DRIFT ? null : $steps * self::PERIOD;
    }

    /**
     * What the QR code says.
     */
    public static function uri(string $secret, string $account, string $issuer): string
    {
        return 'otpauth://totp/' .
            rawurlencode("{$issuer}:{$account}") .
            '?' .
            http_build_query(['secret' => $secret, 'issuer' => $issuer], '', '&', \PHP_QUERY_RFC3986);
    }

    private static function offset(string $secret, string $code, int $time, int $within): ?int
    {
        $now = intdiv($time, self::PERIOD);
        $found = null;
        // All are compared, so that the time does not tell which fits.
        for ($i = -$within; $i <= $within; $i++) {
            if (hash_equals(self::code($secret, $now + $i), $code)) {
                $found = null === $found || abs($i) < abs($found) ? $i : $found;
            }
        }

        return $found;
    }

    private static function encode(string $bytes): string
    {
        $bits = implode('', array_map(static fn(string $b): string => str_pad(decbin(\ord($b)), 8, '0', \STR_PAD_LEFT), str_split($bytes)));

        return implode('', array_map(static fn(string $five): string => self::ALPHABET[(int) bindec($five)], str_split($bits, 5)));
    }

    private static function decode(string $text): string
    {
        $bits = '';
        foreach (str_split($text) as $letter) {
            $bits .= str_pad(decbin((int) strpos(self::ALPHABET, $letter)), 5, '0', \STR_PAD_LEFT);
        }
        $whole = str_split(substr($bits, 0, intdiv(\strlen($bits), 8) * 8), 8);

        return implode('', array_map(static fn(string $byte): string => \chr((int) bindec($byte)), $whole));
    }
}
