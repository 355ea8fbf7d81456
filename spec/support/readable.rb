require "open3"
require "zip"

# All words that stand in what somebody is given, whatever it is wrapped in: JSON, text, PDF, archives, mails.
module Readable
  module_function

  # @param bytes [String]
  # @return [String]
  def words(bytes)
    bytes = bytes.dup.force_encoding("BINARY")
    if bytes.start_with?("%PDF") then pdf(bytes)
    elsif bytes.start_with?("PK\x03\x04".b) then zip(bytes)
    else bytes.force_encoding("UTF-8").scrub
    end
  end

  # As poppler reads it, with what stands about it.
  def pdf(bytes)
    %w[pdfinfo pdftotext].map { |tool|
      arguments = (tool == "pdftotext") ? %w[-layout - -] : %w[-]
      Open3.capture2(tool, *arguments, stdin_data: bytes, binmode: true).first
    }.join("\n").force_encoding("UTF-8").scrub
  end

  def zip(bytes)
    found = []
    Zip::InputStream.open(StringIO.new(bytes)) do |zip|
      while (entry = zip.get_next_entry)
        found << entry.name << words(entry.get_input_stream.read)
      end
    end
    found.join("\n")
  end

  # @param mail [Mail::Message] with all its parts and files
  def mail(mail)
    parts = mail.all_parts.reject(&:multipart?)
    parts = [mail] if parts.empty?
    [mail.subject, *parts.map { |part| [part.filename, words(part.decoded)].compact.join("\n") }].join("\n")
  end
end
