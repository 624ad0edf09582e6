<?php

declare(strict_types=1);

namespace LucidStep\Core\Access;

/**
 * Passwords that are tried first by whoever guesses, of those that are long enough at all. Kept as the first bytes of their SHA-256,
 * sorted one after the other.
 */
final readonly class CommonPasswords
{
    private const BYTES = 6;

    /**
     * @param  string  $hashes the content of such a file
     */
    public function __construct(private string $hashes) {}

    /**
     * Whether it is one of them; upper and lower case do not tell them apart.
     */
    public function has(string $password): bool
    {
        $wanted = substr(hash('sha256', mb_strtolower($password), true), 0, self::BYTES);
        [$from, $to] = [0, intdiv(\strlen($this->hashes), self::BYTES)];
        while ($from < $to) {
            $at = intdiv($from + $to, 2);
            $order = strcmp(substr($this->hashes, $at * self::BYTES, self::BYTES), $wanted);
            if (0 === $order) {
                return true;
            }
            [$from, $to] = $order < 0 ? [$at + 1, $to] : [$from, $at];
        }

        return false;
    }
}
