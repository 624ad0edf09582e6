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

    private static bool $demoKept = false;

    /** @var list<Tester> */
    private array $testers = [];

    public static function setUpBeforeClass(): void
    {
        $socket = stream_socket_server('tcp://127.0.0.1:0') ?: throw new \RuntimeException('No free port.');
        self::$port = (int) substr((string) strrchr((string) stream_socket_get_name($socket, false), ':'), 1);
        fclose($socket);
        $log = self::root().'/var/log/chromedriver.log';
        self::$driver = proc_open(['chromedriver', '--port='.self::$port], [['file', '/dev/null', 'r'], ['file', $log, 'w'], ['file', $log, 'w']], $pipes) ?: null;
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
        if (self::$driver !== null) {
            proc_terminate(self::$driver);
            proc_close(self::$driver);
            self::$driver = null;
        }
    }

    protected function setUp(): void
    {
        $tool = ' --host="$DB_HOST" --port="$DB_PORT" --username="$DB_USERNAME"';
        $kept = '"$LARAVEL_STORAGE_PATH"/demo.dump';
        // The demo was loaded just before the tests: it is kept once and put back before each, which takes a second.
        $this->shell(self::$demoKept
            ? "PGPASSWORD=\"\$DB_PASSWORD\" pg_restore{$tool} --no-owner --clean --if-exists --single-transaction --dbname=\"\$DB_DATABASE\" {$kept} && rm -rf \"\$LARAVEL_STORAGE_PATH\"/framework/cache/data/*"
            : "PGPASSWORD=\"\$DB_PASSWORD\" pg_dump{$tool} --format=custom --table='public.*' --file={$kept} \"\$DB_DATABASE\"");
        self::$demoKept = true;
    }

    protected function tearDown(): void
    {
        foreach ($this->testers as $tester) {
            $tester->leave();
        }
        $this->serverUp();
    }

    protected function tester(int $width = 1280, int $height = 800, bool $dark = false): Tester
    {
        return $this->testers[] = new Tester('http://127.0.0.1:'.self::$port, rtrim((string) getenv('LUCID_TEST_URL'), '/'), $width, $height, $dark);
    }

    protected function serverDown(): void
    {
        $this->shell('./lucid stack test nginx-stop');
    }

    protected function serverUp(): void
    {
        $this->shell('./lucid stack test nginx-start');
    }

    /**
     * A value straight from the database.
     *
     * @param  list<mixed>  $bindings
     */
    protected function value(string $sql, array $bindings = []): mixed
    {
        static $pdo;
        $pdo ??= new PDO(sprintf('pgsql:host=%s;port=%s;dbname=%s', getenv('DB_HOST'), getenv('DB_PORT'), getenv('DB_DATABASE')), (string) getenv('DB_USERNAME'), (string) getenv('DB_PASSWORD'));
        $statement = $pdo->prepare($sql);
        $statement->execute($bindings);

        return $statement->columnCount() > 0 ? $statement->fetchColumn() : null;
    }

    private function shell(string $command): void
    {
        exec('cd '.escapeshellarg(self::root())." && { {$command} ; } 2>&1", $output, $code);
        if ($code !== 0) {
            throw new \RuntimeException("{$command} failed:\n".implode("\n", $output));
        }
    }

    private static function root(): string
    {
        return dirname(__DIR__, 2);
    }
}
