<?php

declare(strict_types=1);

namespace LucidStep\Core\Evidence;

/**
 * An address of an application under test that the simulated handset may show. Browsers are told its origin as the only place
 * that a frame may load from, so nothing but an origin in its plain form ever comes out of here.
 */
final readonly class HandsetAddress
{
    /** How many addresses a project lists at most. */
    public const MOST = 20;

    /** How many characters name and address have at most. */
    public const LONGEST_NAME = 60;

    public const LONGEST = 500;

    private const HOST = '/^(\[[0-9a-f:.]+\]|(?=.{1,253}$)[a-z0-9](?:[a-z0-9.-]*[a-z0-9])?)$/D';

    private function __construct(public string $name, public string $address, public string $origin) {}

    /**
     * @param  string  $own the address of the application itself: framed, a page of it could reach out of its frame
     *
     * @throws \DomainException with a sentence for the person, when it is no address that may be framed
     */
    public static function of(string $name, string $address, string $own): self
    {
        $name = trim($name);
        $address = trim($address);
        $origin = self::originOf($address);

        return match (true) {
            '' === $name => throw new \DomainException('Say what people call it.'),
            mb_strlen($name) > self::LONGEST_NAME => throw new \DomainException('A name has at most 60 characters.'),
            null === $origin => throw new \DomainException('Write a whole address, such as https://staging.example/booking.'),
            $origin === self::originOf($own) => throw new \DomainException('This is Lucid Step itself: it shows other applications.'),
            default => new self($name, $address, $origin),
        };
    }

    /**
     * Scheme, host and port of an address as browsers compare them: in small letters, and without the port that the scheme has
     * anyway.
     *
     * @return ?string such as `https://staging.example:8443`; null where it is no address of a web page
     */
    public static function originOf(string $address): ?string
    {
        if (mb_strlen($address) > self::LONGEST || 1 !== preg_match('/^[\x21-\x7e]+$/D', $address) || str_contains($address, '\\')) {
            return null;
        }
        $parts = parse_url($address);
        if (!\is_array($parts) || isset($parts['user']) || isset($parts['pass'])) {
            return null;
        }
        $scheme = strtolower($parts['scheme'] ?? '');
        $host = strtolower($parts['host'] ?? '');
        $usual = ['http' => 80, 'https' => 443][$scheme] ?? null;
        if (null === $usual || 1 !== preg_match(self::HOST, $host)) {
            return null;
        }
        $port = $parts['port'] ?? $usual;

        return "{$scheme}://{$host}" . ($port === $usual ? '' : ":{$port}");
    }
}
