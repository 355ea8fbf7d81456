require "prawn"
require "prawn/table"

module Mailing
  # Paper (PDF) whose text is tagged (ISO 32000-1 14.7 and 14.8), so that a program reading it aloud knows what is a
  # heading, a table or a list, and in which order it is read; what only adorns a page is marked as such. As PDF/UA-1
  # (ISO 14289-1) asks, as far as it concerns text.
  class TaggedPaper < Prawn::Document
    # `kind` as ISO 32000-1 14.8.4 names it; `kids` elements, or [page, number of the marked content].
    Element = Struct.new(:kind, :within, :attributes, :kids, :ref)
    # What a heading of a column or row is for.
    SCOPES = {column: {O: :Table, Scope: :Column}, row: {O: :Table, Scope: :Row}}.freeze

    # A part that holds others, or, with a block, text. @return [Element]
    def element(kind, within = root, scope: nil)
      made = Element.new(kind, within, SCOPES[scope], [], nil)
      within&.kids&.push(made)
      mark(made) { yield } if block_given?
      made
    end

    def root = @root ||= Element.new(:Document, nil, nil, [], nil)

    # What is drawn stands under an element; where it goes on to another page, there too.
    def mark(element)
      return artifact { yield } unless element

      @open = element
      begin_mark
      yield
      add_content("EMC")
    ensure
      @open = nil
    end

    # Lines and numbers of pages say nothing.
    def artifact
      add_content("/Artifact BMC")
      yield
      add_content("EMC")
    end

    def start_new_page(...)
      going_on, @open = @open, nil
      add_content("EMC") if going_on
      super
      @open = going_on
      begin_mark if going_on
    end

    def render(...)
      write_structure
      super
    end

    private

    def begin_mark
      marks = (@marks ||= Hash.new { |all, key| all[key] = [] })[state.page]
      add_content("/#{@open.kind} <</MCID #{marks.size}>> BDC")
      @open.kids << [state.page, marks.size]
      marks << @open
    end

    def write_structure
      tree = ref!(Type: :StructTreeRoot)
      root.ref = build(root, tree)
      tree.data.merge!(K: [root.ref], ParentTree: parent_tree, ParentTreeNextKey: state.pages.size)
      title = state.store.info.data[:Title]
      state.store.root.data.merge!(
        StructTreeRoot: tree, MarkInfo: {Marked: true}, ViewerPreferences: {DisplayDocTitle: true},
        Metadata: metadata(title)
      )
      renderer.min_version(1.7)
    end

    def build(element, parent)
      element.ref = ref!(Type: :StructElem, S: element.kind, P: parent)
      element.ref.data[:A] = element.attributes if element.attributes
      element.ref.data[:K] = element.kids.map do |kid|
        next build(kid, element.ref) if kid.is_a?(Element)

        {Type: :MCR, Pg: kid[0].dictionary, MCID: kid[1]}
      end
      element.ref
    end

    # By page, to which element each of its marks belongs.
    def parent_tree
      numbers = state.pages.each_with_index.flat_map do |page, i|
        page.dictionary.data.merge!(StructParents: i, Tabs: :S)
        [i, (@marks || {}).fetch(page, []).map(&:ref)]
      end
      ref!(Nums: numbers)
    end

    XMP = <<~XML.freeze
      <?xpacket begin="\u{FEFF}" id="W5M0MpCehiHzreSzNTczkc9d"?>
      <x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">
      <rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/"
      xmlns:pdfuaid="http://www.aiim.org/pdfua/ns/id/"><pdfuaid:part>1</pdfuaid:part>
      <dc:title><rdf:Alt><rdf:li xml:lang="x-default">%s</rdf:li></rdf:Alt></dc:title>
      </rdf:Description></rdf:RDF></x:xmpmeta>
      <?xpacket end="r"?>
    XML

    def metadata(title)
      ref!(Type: :Metadata, Subtype: :XML).tap { |made| made << format(XMP, Html.h(title)).b }
    end

    # Cells stand under the element they were given; a head that is repeated on the next page only adorns it.
    module Cells
      attr_accessor :element

      def draw_bounded_content(point)
        return super unless @pdf.is_a?(TaggedPaper)
        return if content.to_s.strip.empty?

        given, @element = @element, nil
        @pdf.mark(given) { super }
      end

      def draw_borders(point)
        return super unless @pdf.is_a?(TaggedPaper)

        @pdf.artifact { super } if borders.any?
      end
    end
    Prawn::Table::Cell.prepend(Cells)
  end
end
