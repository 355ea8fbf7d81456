module UseCases
  # Papers of a meeting or an action: brought in pieces, so that a lost connection loses a piece and not the file; read
  # by range.
  class Papers < Base
    MOST = 40

    # @return [Hash] which pieces are there already, for going on after a break
    def begin_paper(id:, name:, size_bytes:, meeting_id: nil, action_id: nil, topic_id: nil)
      if size_bytes > Settings.paper_bytes
        raise Core::Invalid.new(
          "This file has #{size_bytes / 1_000_000} MB; #{Settings.paper_bytes / 1_000_000} MB are the most.",
          pointer: "/sizeBytes", code: "too-large"
        )
      end

      name = Core::Paper.safe_name(name)
      once(Records::Paper, id, within: meeting_id || action_id) do
        home = meeting_id ? of_meeting(meeting_id, topic_id) : of_action(action_id)
        if Records::Paper.where(home.slice(:meeting_id, :action_item_id)).count >= MOST
          raise Core::Conflict.new("#{MOST} papers are the most.", code: "too-many")
        end

        Records::Paper.create!(id: id, brought_by_id: by, name: name, size_bytes: size_bytes, **home)
      end
      {
        id: id, piece_bytes: Core::Paper::PIECE_BYTES,
        pieces: Records::PaperPiece.where(paper_id: id).order(:number).pluck(:number)
      }
    end

    # One piece a transaction; sent again, it changes nothing.
    def put_piece(id:, number:, bytes:)
      paper = find(Records::Paper, id)
      if paper.complete && !Records::PaperPiece.exists?(paper_id: id, number: number)
        raise Core::Conflict.new("This paper is whole already.", code: "state")
      end
      unless bytes.bytesize == Core::Paper.piece_bytes(paper.size_bytes, number)
        raise Core::Invalid.new("This piece has not the right length.", pointer: "")
      end

      Core::Paper.type_of(paper.name, bytes[0, 512]) if number.zero?
      write { Records::PaperPiece.insert({paper_id: id, number: number, bytes: bytes}) }
      complete(paper) if Records::PaperPiece.where(paper_id: id).count == Core::Paper.pieces(paper.size_bytes)
      {
        id: id, piece_bytes: Core::Paper::PIECE_BYTES,
        pieces: Records::PaperPiece.where(paper_id: id).order(:number).pluck(:number)
      }
    end

    def remove(id)
      write do
        paper = Records::Paper.find_by(id: id) or next
        Core::Sheet::Lifecycle.refuse_frozen(paper.meeting.state.to_sym) if paper.meeting
        Records::PaperPiece.where(paper_id: id).delete_all
        paper.delete
        note(paper)
      end
    end

    # @return [Records::Paper] @raise [Core::NotFound] while it is not whole
    def find_whole(id) = find(Records::Paper.where(complete: true), id)

    # The bytes in [from, to], piece by piece. @yield [String]
    def each_part(id, from, to)
      Core::Paper.parts(from, to).each do |number, range|
        yield Records::PaperPiece.where(paper_id: id, number: number).pick(:bytes)[range]
      end
    end

    private

    # Where a paper belongs.
    def of_meeting(id, topic_id)
      meeting = find(Records::Meeting, id)
      Core::Sheet::Lifecycle.refuse_frozen(meeting.state.to_sym)
      {series_id: meeting.series_id, meeting_id: id, topic_id: topic_of(meeting, topic_id)}
    end

    def of_action(id) = {series_id: find(Records::ActionItem, id).series_id, action_item_id: id}

    # A paper of a topic goes where its topic goes.
    def topic_of(meeting, topic_id)
      return if topic_id.nil?
      there = Records::Topic.exists?(id: topic_id, series_id: meeting.series_id)
      return topic_id if there && !Loading::ClosedTopics.hides?(topic_id, by)

      raise Core::Invalid.new("Choose a topic of this sheet.", pointer: "/topicId")
    end

    def complete(paper)
      head = Records::PaperPiece.where(paper_id: paper.id, number: 0).pick(:bytes)[0, 512]
      write do
        paper.update!(complete: true, content_type: Core::Paper.type_of(paper.name, head))
        note(paper)
      end
    end

    # A sheet shows its papers live; an action its own when it is opened.
    def note(paper) = paper.meeting_id && Records::Change.note(paper.meeting_id, now, :papers)
  end
end
