<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Secrets;

use Illuminate\Http\UploadedFile;
use Illuminate\Validation\Rules\Enum;
use Illuminate\Validation\Rules\In;
use Illuminate\Validation\ValidationException;
use LucidStep\Core\Data\Mask;
use LucidStep\Core\Evidence\FileKind;

/**
 * Hides secret values in what came with a request: in every text of its body, and in every text file. A field is left as it is
 * only where its rules let no free text in, so that a new one is hidden in without being named anywhere.
 */
final readonly class MaskedInput
{
    /** Rules that let nothing in but an id, a date, a number or one of some words. */
    private const NO_TEXT = ['uuid', 'date', 'in:', 'integer', 'numeric', 'boolean', 'timezone'];

    /** Fields that name an item of one of the project's lists: anything else in them is refused. */
    private const NAMES = ['priority', 'type', 'phase', 'severity', 'component', 'value'];

    /**
     * @param  array<string, mixed>  $rules of each field, by its whole path
     */
    public function __construct(private Mask $mask, private array $rules) {}

    /**
     * @param  array<array-key, mixed>  $values
     *
     * @return array<array-key, mixed>
     */
    public function texts(array $values, string $under = ''): array
    {
        $masked = [];
        foreach ($values as $key => $value) {
            $path = '' === $under ? (string) $key : "{$under}.{$key}";
            $masked[\is_string($key) ? $this->mask->aroundIds($key) : $key] = match (true) {
                \is_array($value) => $this->texts($value, $path),
                \is_string($value) && !$this->isNamed($path, (string) $key, $value) => $this->mask->aroundIds($value),
                default => $value,
            };
        }

        return $masked;
    }

    /**
     * @param  array<array-key, mixed>  $files
     *
     * @return array<array-key, mixed>
     */
    public function files(array $files): array
    {
        return array_map(
            fn(mixed $file): mixed => match (true) {
                \is_array($file) => $this->files($file),
                $file instanceof UploadedFile => self::file($file, $this->mask),
                default => $file,
            },
            $files,
        );
    }

    /**
     * A file with the values hidden in its name and, where it is text, in what it holds.
     *
     * @throws ValidationException when a value stands in it where nothing can be hidden
     */
    public static function file(UploadedFile $file, Mask $mask): UploadedFile
    {
        $path = $file->getRealPath();
        if ($mask->isEmpty() || false === $path) {
            return $file;
        }
        if (self::isText($path)) {
            $text = (string) file_get_contents($path);
            $masked = $mask->bytes($text);
            if ($masked !== $text) {
                file_put_contents($path, $masked);
                clearstatcache(true, $path);
            }
        } elseif (self::holds($path, $mask)) {
            throw ValidationException::withMessages([
                'file' => 'The file holds a value that this project keeps secret. Take the value out of it, and add it again.',
            ]);
        }

        return new UploadedFile($path, $mask->text($file->getClientOriginalName()), $file->getClientMimeType(), $file->getError(), true);
    }

    private static function isText(string $path): bool
    {
        return false === @getimagesize($path) && FileKind::isText((string) file_get_contents($path, false, null, 0, FileKind::HEAD));
    }

    /**
     * Whether a value stands as it is in a file that is no text; what is packed in it cannot be seen.
     */
    private static function holds(string $path, Mask $mask): bool
    {
        $file = fopen($path, 'r') ?: throw new \RuntimeException('The upload cannot be read.');
        $end = '';
        while (!feof($file)) {
            $part = $end . fread($file, 1_048_576);
            if ($mask->isIn($part)) {
                return true;
            }
            $end = substr($part, -Mask::LONGEST_IN_FILES);
        }

        return false;
    }

    private function isNamed(string $path, string $key, string $value): bool
    {
        $isHash = 1 === preg_match('/^[0-9a-f]{64}$/D', $value);
        if ($isHash || (\in_array($key, self::NAMES, true) && 1 === preg_match('/^[a-z0-9_-]+$/D', $value))) {
            return true;
        }
        foreach ((array) ($this->rules[$path] ?? []) as $rule) {
            if ($rule instanceof In || $rule instanceof Enum) {
                return true;
            }
            if (\is_string($rule) && [] !== array_filter(self::NO_TEXT, static fn(string $r): bool => str_starts_with($rule, $r))) {
                return true;
            }
        }

        return false;
    }
}
