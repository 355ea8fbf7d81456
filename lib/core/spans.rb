module Core
  # Sets of time as flat arrays of whole minutes since 1970 UTC: [from, to, from, to, …], half open. Searches handle
  # hundreds of thousands of them, so they are bare integers. In normal form they are in order, disjoint and joined:
  #
  #   [10, 20, 15, 30, 30, 40] → [10, 40]
  module Spans
    module_function

    # @param spans [Array<Integer>] in any order, overlapping or touching
    # @return [Array<Integer>] the same set in normal form
    def normal(spans) = joined(in_order?(spans) ? spans : spans.each_slice(2).sort.flatten)

    # @param spans [Array<Integer>] in order of their starts
    # @return [Array<Integer>] the same set in normal form
    def joined(spans)
      out = []
      last = nil
      i = 0
      size = spans.size
      while i < size
        from = spans[i]
        to = spans[i + 1]
        i += 2
        if last && from <= last
          out[-1] = last = to if to > last
        elsif from < to
          out << from << to
          last = to
        end
      end
      out
    end

    def in_order?(spans)
      i = 2
      while i < spans.size
        return false if spans[i] < spans[i - 2]

        i += 2
      end
      true
    end

    # @param spans [Array<Integer>] in normal form
    # @return [Array<Integer>] what they leave of [from, to)
    def complement(spans, from, to)
      inner = clip(spans, from, to)
      out = [from, *inner, to]
      out.each_slice(2).select { |start, finish| start < finish }.flatten
    end

    # @return [Array<Integer>] the part within [from, to)
    def clip(spans, from, to)
      out = []
      spans.each_slice(2) do |start, finish|
        start = from if start < from
        finish = to if finish > to
        out << start << finish if start < finish
      end
      out
    end

    # Both sets as one, in one pass: searches join thousands of times.
    # @param a, b [Array<Integer>] in normal form
    # @return [Array<Integer>] in normal form
    def join(a, b)
      return a if b.empty?
      return b if a.empty?

      out = []
      last = nil
      i = j = 0
      while i < a.size || j < b.size
        if j >= b.size || (i < a.size && a[i] <= b[j])
          from = a[i]
          to = a[i + 1]
          i += 2
        else
          from = b[j]
          to = b[j + 1]
          j += 2
        end
        if last && from <= last
          out[-1] = last = to if to > last
        else
          out << from << to
          last = to
        end
      end
      out
    end

    # The spans that touch [from, to), whole; the very same array when those are all.
    # @param spans in normal form
    def touching(spans, from, to)
      first = first_ending_after(spans, from)
      after = first_ending_after(spans, to)
      after += 2 if after < spans.size && spans[after] < to
      (first.zero? && after == spans.size) ? spans : spans[first...after]
    end

    # Whether anything of the set lies in [from, to). @param spans in normal form
    def touch?(spans, from, to) = overlap(spans, from, to).positive?

    # @return [Integer] minutes of the set in [from, to)
    def overlap(spans, from, to)
      i = first_ending_after(spans, from)
      sum = 0
      while i < spans.size && spans[i] < to
        sum += [spans[i + 1], to].min - [spans[i], from].max
        i += 2
      end
      sum
    end

    # @return [Integer] index of the first span that ends after `at`
    def first_ending_after(spans, at)
      low = 0
      high = spans.size / 2
      while low < high
        middle = (low + high) / 2
        (spans[2 * middle + 1] > at) ? high = middle : low = middle + 1
      end
      2 * low
    end

    def minute(instant) = instant.to_i.div(60)

    # The first whole minute not before an instant.
    def minute_after(instant) = -(-instant.to_i).div(60)
  end
end
