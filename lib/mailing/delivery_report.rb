require "mail"

module Mailing
  # What a mail service reports of a mail it took (RFC 3464): of which mail, and for each recipient what became of it.
  class DeliveryReport
    # `addresses` it speaks of: where it went in the end and where it was sent; `action` failed, delayed, delivered,
    # relayed or expanded; `status` such as 5.1.1; `words` what the service says.
    Outcome = Struct.new(:addresses, :action, :status, :words, keyword_init: true)

    attr_reader :message_id, :outcomes

    # @param mail [::Mail::Message]
    # @return [DeliveryReport, nil] nil when it is none
    def self.read(mail)
      status = mail.all_parts.find { |part| part.mime_type == "message/delivery-status" } or return
      returned = mail.all_parts.find { |part| %w[text/rfc822-headers message/rfc822].include?(part.mime_type) }
      message_id = returned && ::Mail.new(returned.decoded).message_id
      new(message_id, status.decoded) if message_id
    end

    # @param fields [String] groups of fields, the first about the whole, each further one about one recipient (RFC 3464
    #   2.1)
    def initialize(message_id, fields)
      @message_id = message_id
      groups = fields.dup.force_encoding("UTF-8").scrub.gsub(/\r\n?/, "\n").strip.split(/\n[ \t]*\n+/)
      @outcomes = groups.drop(1).filter_map { |group| outcome(read_fields(group)) }
    end

    private

    def read_fields(group) =
      group
        .gsub(/\n[ \t]+/, " ")
        .lines(chomp: true)
        .filter_map { |line| line.split(":", 2).map(&:strip) if line.include?(":") }
        .to_h { |name, value| [name.downcase, value] }

    def outcome(fields)
      action = fields["action"]&.downcase or return
      addresses =
        fields
          .values_at("final-recipient", "original-recipient")
          .compact
          .map { |value| Core::MailAddress.normal(typed(value)) }
      Outcome.new(
        addresses: addresses, action: action, status: fields["status"].to_s[/\A\d\.\d{1,3}\.\d{1,3}/],
        words: typed(fields["diagnostic-code"]) || fields["status"].to_s
      )
    end

    # "rfc822; somebody@house.example" without its type.
    def typed(value) = value&.split(";", 2)&.last&.strip
  end
end
