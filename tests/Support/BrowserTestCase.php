<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use PDO;
use PHPUnit\Framework\TestCase;

/**
 * A test with real browsers against the whole stack: nginx, php-fpm, PostgreSQL, with the demo loaded afresh.
 */
abstract class BrowserTestCase extends TestCase
{
    /** @var resource|null */
    private static $driver;

    private static int $port = 0;

    /** @var list<Tester> browsers whose test is over and went well */
    private static array $idle = [];

    /** @var list<Tester> */
    private array $testers = [];

    public static function setUpBeforeClass(): void
    {
        $socket = stream_socket_server('tcp://127.0.0.1:0') ?: throw new \RuntimeException('No free port.');
        self::$port = (int) substr((string) strrchr((string) stream_socket_get_name($socket, false), ':'), 1);
        fclose($socket);
        $log = self::root() . '/var/log/chromedriver-' . getenv('LUCID_TEST_STACK') . '.log';
        self::$driver =
            proc_open(
                ['chromedriver', '--port=' . self::$port],
                [['file', '/dev/null', 'r'], ['file', $log, 'w'], ['file', $log, 'w']],
                $pipes,
            ) ?:
            null;
        for ($i = 0; $i < 100; $i++) {
            if (@fsockopen('127.0.0.1', self::$port)) {
                return;
            }
            usleep(100_000);
        }
        throw new \RuntimeException("chromedriver did not start, see {$log}");
    }

    public static function tearDownAfterClass(): void
    {
        foreach (self::$idle as $tester) {
            $tester->leave();
        }
        self::$idle = [];
        if (self::$driver !== null) {
            proc_terminate(self::$driver);
            proc_close(self::$driver);
            self::$driver = null;
        }
    }

    protected function setUp(): void
    {
        // The demo was kept as a dump, and its files beside it, when the stack was made; putting them back takes a second. A page of the
        // test before may still ask for something: then they can stand in each other's way, and the second try has room.
        $restore =
            'PGPASSWORD="$DB_OWNER_PASSWORD" pg_restore --host="$DB_HOST" --port="$DB_PORT" --username="$DB_OWNER_USERNAME" ' .
            '--no-owner --clean --if-exists --single-transaction --dbname="$DB_DATABASE" "$LARAVEL_STORAGE_PATH"/demo.dump';
        $this->shell(
            "{ {$restore} || { sleep 1; {$restore}; } ; } && rm -rf \"\$LARAVEL_STORAGE_PATH\"/framework/cache/data/* " .
                '"$LARAVEL_STORAGE_PATH"/app && cp -a "$LARAVEL_STORAGE_PATH"/demo-files "$LARAVEL_STORAGE_PATH"/app',
        );
    }

    protected function tearDown(): void
    {
        foreach ($this->testers as $tester) {
            $this->status()->isSuccess() ? (self::$idle[] = $tester) : $tester->leave();
        }
        $this->testers = [];
        $this->serverUp();
    }

    protected function tester(int $width = 1280, int $height = 800, bool $dark = false): Tester
    {
        return $this->testers[] =
            array_pop(self::$idle)?->renew($width, $height, $dark) ??
            new Tester('http://127.0.0.1:' . self::$port, rtrim((string) getenv('LUCID_TEST_URL'), '/'), $width, $height, $dark);
    }

    protected function serverDown(): void
    {
        $this->shell('./lucid stack "$LUCID_TEST_STACK" nginx-stop');
    }

    protected function serverUp(): void
    {
        $this->shell('./lucid stack "$LUCID_TEST_STACK" nginx-start');
    }

    /**
     * A value straight from the database.
     *
     * @param  list<mixed>  $bindings
     */
    protected function value(string $sql, array $bindings = []): mixed
    {
        static $pdo;
        $pdo ??= new PDO(
            sprintf('pgsql:host=%s;port=%s;dbname=%s', getenv('DB_HOST'), getenv('DB_PORT'), getenv('DB_DATABASE')),
            (string) getenv('DB_USERNAME'),
            (string) getenv('DB_PASSWORD'),
        );
        $statement = $pdo->prepare($sql);
        $statement->execute($bindings);

        return $statement->columnCount() > 0 ? $statement->fetchColumn() : null;
    }

    /**
     * What is shown now is accessible (WCAG 2.2 AA) and nothing hangs over the window.
     */
    protected function check(Tester $me, string $where): void
    {
        $me->settle();
        self::assertSame([], $me->faultsOfAccess(), $where);
        self::assertLessThanOrEqual(
            0,
            $me->script('return document.documentElement.scrollWidth - document.documentElement.clientWidth'),
            "{$where} hangs over",
        );
    }

    /**
     * A command of the application, in the stack of the test.
     *
     * @return string what it says
     */
    protected function artisan(string $command): string
    {
        return $this->shell("php artisan {$command}");
    }

    private function shell(string $command): string
    {
        exec('cd ' . escapeshellarg(self::root()) . " && { {$command} ; } 2>&1", $output, $code);
        if ($code !== 0) {
            throw new \RuntimeException("{$command} failed:\n" . implode("\n", $output));
        }

        return implode("\n", $output);
    }

    private static function root(): string
    {
        return dirname(__DIR__, 2);
    }
}
