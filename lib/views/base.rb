module Views
  # What a page or list shows: ids and a person in, a hash of the contract's shape out, in a fixed number of queries.
  # A view writes nothing.
  class Base
    # @param by [String, nil] key of the person who looks
    # @param clock [#now]
    def initialize(by: nil, clock: Clock)
      @by = by
      @clock = clock
    end

    private

    attr_reader :by

    def now = @now ||= @clock.now.getutc.floor(6)

    def find(records, id) = records.find_by(id: id) || raise(Core::NotFound)

    # One page of a list. @return [Hash] with its number, its size, and how many there are in all
    def page_of(name, number, size, total, shown)
      {name => shown, :page => number, :page_size => size, :total => total}
    end

    # One page of rows, which are counted only where it does not tell by itself how many there are.
    # @param records [ActiveRecord::Relation] in order
    # @yieldparam shown [Array] those of this page
    # @return [Hash] as page_of
    def one_page(name, records, number, size)
      before = (number - 1) * size
      shown = records.offset(before).limit(size).to_a
      last = shown.size < size && (shown.any? || number == 1)
      page_of(name, number, size, last ? before + shown.size : records.count, yield(shown))
    end

    def named(record) = record && {id: record.id, name: record.name}
  end
end
