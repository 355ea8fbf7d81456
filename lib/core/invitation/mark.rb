module Core
  module Invitation
    # The drawn signs by which a series is known at a glance, each with a name; and the colour it has in calendars: of
    # the names that CSS knows (RFC 7986 5.9) the one nearest to that of our palette.
    module Mark
      COLOURS = {
        "buoy" => "orangered", "anchor" => "black", "lamp" => "darkgoldenrod", "wave" => "teal",
        "knot" => "slategray", "sail" => "seagreen", "bell" => "firebrick", "compass" => "darkslategray"
      }.freeze

      module_function

      # @param writer [ICalendar::Writer]
      # @param name [String, nil]
      def write(writer, name)
        writer.text("CATEGORIES", name&.capitalize)
        writer.raw("COLOR", COLOURS.fetch(name)) if name
      end
    end
  end
end
