<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Http\Requests;

use Illuminate\Http\UploadedFile;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Coverage\Exchange\ReadRequirementFile;
use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\Core\Exchange\ReadError;
use LucidStep\Core\Exchange\RequirementRecord;
use LucidStep\Core\Exchange\RequirementSheet;
use LucidStep\Core\Exchange\Unreadable;
use OpenApi\Attributes as OA;

/**
 * Requirements of a file, or pasted.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(property: 'file', type: 'string', format: 'binary', description: 'CSV, XLSX, JSON or ReqIF 1.2'),
            new OA\Property(property: 'text', type: 'string', nullable: true, description: 'Pasted: rows of a sheet, or an outline'),
            new OA\Property(
                property: 'meanings',
                type: 'string',
                nullable: true,
                description: 'What columns or attributes mean, as JSON: a meaning, `detail` or `none` by name',
            ),
            new OA\Property(property: 'apply', type: 'boolean', description: 'Else it is only looked at'),
        ],
    ),
]
final class ImportRequirementsRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'file' => ['required_without:text', 'file', 'max:' . intdiv((int) config('lucid.import.max_bytes'), 1024)],
            'text' => ['nullable', 'string', 'max:2000000'],
            'meanings' => ['nullable', 'json', 'max:20000'],
            'apply' => ['boolean'],
        ];
    }

    public function messages(): array
    {
        return [
            'file.required_without' => 'Choose a file, or paste what is to come in.',
            'file.max' => sprintf(
                'The file is larger than %d MB, which is the most that is read at once. Nothing was kept of it.',
                intdiv((int) config('lucid.import.max_bytes'), 1_048_576),
            ),
        ];
    }

    /**
     * @throws ValidationException when it cannot be read
     * @return array{columns: list<string>, meanings: list<string>, records: list<RequirementRecord>}
     */
    public function content(): array
    {
        $file = $this->file('file');
        try {
            $content =
                $file instanceof UploadedFile
                    ? ReadRequirementFile::fromFile((string) $file->getRealPath(), $this->said())
                    : ReadRequirementFile::fromText((string) $this->validated('text'), $this->said());
        } catch (Unreadable $refusal) {
            $lines = array_map(
                static fn(ReadError $e): string => $e->row > 1 ? "Row {$e->row}: {$e->message}" : $e->message,
                $refusal->errors,
            );
            throw ValidationException::withMessages([$file instanceof UploadedFile ? 'file' : 'text' => $lines]);
        }
        if ($this->boolean('apply') && [] !== $content['columns'] && [] === $content['records']) {
            throw ValidationException::withMessages(['meanings' => 'No column is the title. Say which one it is.']);
        }

        return $content;
    }

    public function name(): string
    {
        $file = $this->file('file');

        return $file instanceof UploadedFile ? mb_substr($file->getClientOriginalName(), 0, 200) : 'pasted';
    }

    /**
     * @throws ValidationException
     * @return array<string, string>
     */
    private function said(): array
    {
        $all = json_decode((string) ($this->validated('meanings') ?? '{}'), true);
        $known = [...array_keys(RequirementSheet::MEANINGS), 'detail', 'none'];
        $said = [];
        foreach (\is_array($all) ? $all : [] as $name => $meaning) {
            if (!\in_array($meaning, $known, true)) {
                throw ValidationException::withMessages([
                    'meanings' => 'A column cannot mean this; one of: ' . implode(', ', $known) . '.',
                ]);
            }
            $said[(string) $name] = $meaning;
        }

        return $said;
    }
}
