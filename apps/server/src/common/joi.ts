/** Validates all input with Joi. */
import { BadRequestException, Injectable, type PipeTransform } from '@nestjs/common'
import type { Schema } from 'joi'

@Injectable()
export class JoiPipe<T> implements PipeTransform<unknown, T> {
  constructor(private readonly schema: Schema) {}

  transform(value: unknown): T {
    const { error, value: checked } = this.schema.validate(value, { abortEarly: true, convert: false, presence: 'required' })
    if (error) throw new BadRequestException({ code: 'bad-input', message: error.message })
    return checked as T
  }
}
