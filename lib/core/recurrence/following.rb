module Core
  module Recurrence
    # When the dates of a run change, what was prepared is never lost (rules.md 2): a sheet whose date still stands may
    # keep it, and of the others the k-th to come takes the k-th new date.
    class Following
      # @param sheets [Array] to come, those that are to be served first at the front
      # @param dates [Array] to come, in order
      # @param standing [Hash] dates to the sheet that stands for them already
      def initialize(sheets, dates, standing: {})
        @kept = dates.filter_map { |date| [standing[date], date] if standing[date] }
        waiting = sheets - @kept.map(&:first)
        open = dates - @kept.map(&:last)
        @taken = waiting.zip(open).select(&:last)
        @without_date = waiting.drop(open.size)
        @without_sheet = open.drop(waiting.size)
      end

      # @return [Array] sheets that no date is left for, and dates that need a sheet
      attr_reader :without_date, :without_sheet

      # @return [Array<Array(Object, Object)>] each sheet with its date: those that keep theirs, then the others
      def pairs = @kept + @taken
    end
  end
end
