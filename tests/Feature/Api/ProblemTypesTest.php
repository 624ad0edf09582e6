<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Api;

use LucidStep\App\Support\Problems\Conflict;
use PHPUnit\Framework\TestCase;

/**
 * What docs/problems.md promises to programs is what the application answers.
 */
final class ProblemTypesTest extends TestCase
{
    private const APP = __DIR__ . '/../../../app';

    public function test_every_type_is_documented_and_every_documented_one_is_there(): void
    {
        $documented = [];
        foreach (explode("\n", (string) file_get_contents(__DIR__ . '/../../../docs/problems.md')) as $line) {
            if (1 === preg_match('/^\| (`[^|]+) \| \d/', $line, $m)) {
                preg_match_all('/`([a-z-]+)`/', $m[1], $types);
                array_push($documented, ...$types[1]);
            }
        }
        self::assertSame($documented, array_values(array_unique($documented)), 'Each stands once.');
        self::assertEqualsCanonicalizing($this->types(), $documented);
    }

    public function test_every_conflict_is_made_by_a_named_constructor(): void
    {
        foreach ($this->conflicts() as $class => $code) {
            self::assertTrue(is_subclass_of($class, Conflict::class), $class);
            self::assertSame(1, preg_match('/public static function \w+\(/', $code), $class);
        }
        self::assertGreaterThan(8, \count($this->conflicts()));
        self::assertFalse((new \ReflectionMethod(Conflict::class, '__construct'))->isPublic());
    }

    /**
     * @return list<string>
     */
    private function types(): array
    {
        $types = [];
        foreach ([...array_values($this->conflicts()), (string) file_get_contents(self::APP . '/Support/Problems/Problem.php')] as $code) {
            preg_match_all("/new self\\(\\s*(?:\\d+,\\s*)?(?:\\\$e->[\\w>()-]+,\\s*)?'([a-z-]+)'/", $code, $found);
            array_push($types, ...$found[1]);
        }

        return array_values(array_unique($types));
    }

    /**
     * @return array<string, string> the code of each kind of conflict, by class
     */
    private function conflicts(): array
    {
        $conflicts = [];
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator(self::APP, \FilesystemIterator::SKIP_DOTS)) as $file) {
            $isCode = $file instanceof \SplFileInfo && 'php' === $file->getExtension();
            $code = $isCode ? (string) file_get_contents($file->getPathname()) : '';
            if (1 === preg_match('/^namespace ([^;]+);.*^final class (\w+) extends Conflict$/ms', $code, $m)) {
                $conflicts["{$m[1]}\\{$m[2]}"] = $code;
            }
        }

        return $conflicts;
    }
}
