module Core
  module ICalendar
    # People as vCards, in and out (RFC 6350): name, mail address and time zone; telephone and categories are read.
    module VCard
      Card = Value.of(:name, :email, :time_zone, :phone, :groups)

      module_function

      # @param bytes [String] one or more vCards, 3.0 as well as 4.0
      # @return [Array<Card>] what is missing is nil
      # @raise [Invalid] code "unreadable"
      def read(bytes)
        Reader
          .read(bytes, wanted: "VCARD")
          .components
          .map do |card|
            Card.new(
              name: (card.text("FN") || name_of(card))&.strip, email: preferred(card)&.strip&.sub(/\Amailto:/i, ""),
              time_zone: card.text("TZ")&.strip, phone: card["TEL"]&.value&.sub(/\Atel:/i, "")&.strip,
              groups: listed(card["CATEGORIES"]).first(10)
            )
          end
      end

      # @param people [Array<Hash>] id, name, email, time_zone
      # @return [String]
      def write(people)
        people
          .map do |person|
            Writer
              .new
              .component("VCARD") do |writer|
                first, _, last = person[:name].rpartition(" ")
                writer.raw("VERSION", "4.0").raw("UID", "urn:uuid:#{person[:id]}").text("FN", person[:name])
                writer.raw(
                  "N", [last, first, "", "", ""].map { |part| part.gsub(/[\\;,]/) { |char| "\\#{char}" } }.join(";")
                )
                writer.text("EMAIL", person[:email]).text("TZ", person[:time_zone])
              end
              .to_s
          end
          .join
      end

      # "Harbour crew,Boats\, buoys" → ["Harbour crew", "Boats, buoys"] (RFC 6350 4)
      def listed(property)
        return [] unless property

        parts = property.value[0, Component::MOST_TEXT].scan(/(?:\\.|[^,\\])+/)
        parts.map { |part| Component.unescape(part).strip }.reject(&:empty?)
      end

      # "Torvald;Ines;;;" → "Ines Torvald"
      def name_of(card) =
        card["N"]
          &.value
          &.split(/(?<!\\);/)
          &.values_at(1, 0)
          &.compact
          &.map { |part| Component.unescape(part) }
          &.join(" ")

      def preferred(card) =
        card
          .all("EMAIL")
          .min_by { |property| property.params["PREF"]&.first&.to_i || 100 }
          &.then { |property| Component.unescape(property.value) }
    end
  end
end
