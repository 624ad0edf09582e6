<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects\Tracker;

/**
 * Whether an address outside may be called. What lies within the network of the installation is called only where the installation names
 * it; what belongs to the machine's own link never is.
 */
final class OutsideAddress
{
    /**
     * @throws \DomainException with a sentence for the person, where it is no address of a web service
     * @return string host and port as they are named, such as `127.0.0.1:8089`
     */
    public static function hostOf(string $address): string
    {
        $parts = parse_url($address);
        $isPlain = 1 === preg_match('/^[\x21-\x7e]+$/D', $address) && !str_contains($address, '\\') && \strlen($address) <= 500;
        $scheme = \is_array($parts) ? strtolower($parts['scheme'] ?? '') : '';
        if (!$isPlain || !\is_array($parts) || !\in_array($scheme, ['http', 'https'], true) || '' === ($parts['host'] ?? '')) {
            throw new \DomainException('Write a whole address, such as https://tracker.example/api.');
        }
        if (isset($parts['user']) || isset($parts['pass']) || isset($parts['query']) || isset($parts['fragment'])) {
            throw new \DomainException('The address itself holds no name, no password and no question.');
        }

        return strtolower($parts['host']) . ':' . ($parts['port'] ?? ('https' === $scheme ? 443 : 80));
    }

    /**
     * @param  string  $host  as {@see hostOf()} gives it
     * @param  list<string>  $ips   what the host stands for
     * @param  list<string>  $named hosts within that the installation allows, each with its port
     */
    public static function isAllowed(string $host, array $ips, array $named): bool
    {
        if ([] === $ips) {
            return false;
        }
        $isNamed = \in_array($host, array_map(strtolower(...), $named), true);
        foreach ($ips as $ip) {
            if (self::isOfLink($ip) || (!$isNamed && !self::isPublic($ip))) {
                return false;
            }
        }

        return true;
    }

    /**
     * Of the machine's own link: where clouds keep what they know of a machine.
     */
    private static function isOfLink(string $ip): bool
    {
        $bytes = @inet_pton($ip);
        if (false === $bytes) {
            return true;
        }
        // An IPv4 address within IPv6 is that IPv4 address.
        $bytes = 16 === \strlen($bytes) && str_starts_with($bytes, str_repeat("\0", 10) . "\xff\xff") ? substr($bytes, 12) : $bytes;

        return 4 === \strlen($bytes)
            ? str_starts_with($bytes, "\xa9\xfe")
            : ("\xfe" === $bytes[0] && 0x80 === (\ord($bytes[1]) & 0xc0)) || "\xfd\x00\x0e\xc2" === substr($bytes, 0, 4);
    }

    private static function isPublic(string $ip): bool
    {
        $bytes = (string) @inet_pton($ip);
        if (16 === \strlen($bytes) && str_starts_with($bytes, str_repeat("\0", 10) . "\xff\xff")) {
            $ip = (string) inet_ntop(substr($bytes, 12));
        }

        return false !== filter_var($ip, \FILTER_VALIDATE_IP, \FILTER_FLAG_NO_PRIV_RANGE | \FILTER_FLAG_NO_RES_RANGE) &&
            // Shared between providers (RFC 6598), and many at once (RFC 5771): no host of its own.
            1 !== preg_match('/^(100\.(6[4-9]|[7-9]\d|1[01]\d|12[0-7])|2(2[4-9]|3\d))\./', $ip);
    }
}
