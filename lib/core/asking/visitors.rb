module Core
  module Asking
    # Who may book: everybody, or those alone who are let in; never those who are kept out.
    module Visitors
      # An address, or a domain with those below it.
      DOMAIN = /\A@?((?:[a-z0-9-]+\.)+[a-z0-9-]{2,})\z/

      module_function

      # @param list [Array<String>] as it was typed
      # @return [Array<String>] addresses and domains as they are compared
      # @raise [Invalid]
      def read(list, pointer)
        list.map(&:strip).reject(&:empty?).each_with_index.map do |text, i|
          low = text.downcase
          low[DOMAIN, 1] || MailAddress.read(low) ||
            raise(Invalid.new("“#{text}” is neither a mail address nor a domain such as port.example.",
              pointer: "#{pointer}/#{i}"))
        end.uniq
      end

      # @param address [String] as Core::MailAddress gives it
      def allowed?(address, only:, never:)
        (only.empty? || only.any? { |one| fits?(address, one) }) && never.none? { |one| fits?(address, one) }
      end

      def fits?(address, one)
        return address == one if one.include?("@")

        domain = address.split("@").last
        domain == one || domain.end_with?(".#{one}")
      end
      private_class_method :fits?
    end
  end
end
