<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Access;

use LucidStep\Core\Access\DeviceName;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * What a browser says of itself, in words.
 */
final class DeviceNameTest extends TestCase
{
    #[DataProvider('browsers')]
    public function test_devices_are_told_apart(string $says, string $name): void
    {
        self::assertSame($name, DeviceName::of($says));
    }

    /**
     * @return iterable<array{string, string}>
     */
    public static function browsers(): iterable
    {
        $webkit = 'AppleWebKit/537.36 (KHTML, like Gecko)';
        yield ["Mozilla/5.0 (X11; Linux x86_64) {$webkit} Chrome/120.0 Safari/537.36", 'Chrome or Chromium on Linux'];
        yield ["Mozilla/5.0 (Windows NT 10.0; Win64; x64) {$webkit} Chrome/120.0 Safari/537.36 Edg/120.0", 'Edge on Windows'];
        yield ['Mozilla/5.0 (Windows NT 10.0; rv:120.0) Gecko/20100101 Firefox/120.0', 'Firefox on Windows'];
        yield ['Mozilla/5.0 (Macintosh; Intel Mac OS X 14_1) AppleWebKit/605 Version/17 Safari/605', 'Safari on a Mac'];
        yield ['Mozilla/5.0 (iPhone; CPU iPhone OS 17_1 like Mac OS X) AppleWebKit/605 Version/17 Mobile Safari/604', 'Safari on iPhone'];
        yield ["Mozilla/5.0 (Linux; Android 14) {$webkit} Chrome/120.0 Mobile Safari/537.36", 'Chrome or Chromium on Android'];
        yield ['curl/8.5', 'A program'];
        yield ['', 'A program'];
    }
}
