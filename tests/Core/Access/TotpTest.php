<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Access;

use LucidStep\Core\Access\Totp;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * Codes of a second factor.
 */
final class TotpTest extends TestCase
{
    /** "12345678901234567890" in base 32, the secret of the vectors. */
    private const SECRET = 'GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ';

    /**
     * RFC 6238, appendix B, SHA-1.
     */
    #[DataProvider('vectors')]
    public function test_codes_are_those_of_the_standard(int $time, string $code): void
    {
        self::assertSame($code, Totp::code(self::SECRET, intdiv($time, Totp::PERIOD), 8));
    }

    /**
     * @return iterable<array{int, string}>
     */
    public static function vectors(): iterable
    {
        yield [59, '94287082'];
        yield [1_111_111_109, '07081804'];
        yield [1_111_111_111, '14050471'];
        yield [1_234_567_890, '89005924'];
        yield [2_000_000_000, '69279037'];
        yield [20_000_000_000, '65353130'];
    }

    public function test_a_code_is_taken_once_and_a_little_early_or_late(): void
    {
        $secret = Totp::secret();
        $now = 1_800_000_015;
        $step = intdiv($now, 30);
        foreach ([-1, 0, 1] as $drift) {
            self::assertSame($step + $drift, Totp::step($secret, Totp::code($secret, $step + $drift), $now, 0));
        }
        self::assertNull(Totp::step($secret, Totp::code($secret, $step), $now, $step), 'once');
        self::assertNull(Totp::step($secret, Totp::code($secret, $step - 1), $now, $step), 'and none before it');
        self::assertNull(Totp::step($secret, Totp::code($secret, $step + 2), $now, 0));
        self::assertNull(Totp::step($secret, '', $now, 0));
    }

    public function test_a_clock_that_is_off_is_told_apart_from_a_wrong_code(): void
    {
        $secret = self::SECRET;
        $now = 1_800_000_015;
        foreach ([90, -90, 600, -600] as $off) {
            $code = Totp::code($secret, intdiv($now + $off, 30));
            self::assertNull(Totp::step($secret, $code, $now, 0));
            self::assertSame($off, Totp::clockIsOff($secret, $code, $now));
        }
        self::assertNull(Totp::clockIsOff($secret, Totp::code($secret, intdiv($now + 30, 30)), $now), 'close enough');
        self::assertNull(Totp::clockIsOff($secret, Totp::code($secret, intdiv($now + 86_400, 30)), $now), 'a day is no clock');
    }

    public function test_secrets_are_long_and_say_what_programs_read(): void
    {
        $secrets = array_map(static fn(): string => Totp::secret(), range(1, 50));
        self::assertCount(50, array_unique($secrets));
        self::assertMatchesRegularExpression('/^[A-Z2-7]{32}$/', $secrets[0]);
        self::assertSame(
            'otpauth://totp/Lucid%20Step%3Aana%40bakery.test?secret=ABC&issuer=Lucid%20Step',
            Totp::uri('ABC', 'ana@bakery.test', 'Lucid Step'),
        );
    }
}
